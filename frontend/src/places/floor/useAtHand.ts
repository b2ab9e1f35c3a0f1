import { useEffect, useState } from "react";
import type { Schemas } from "@/api/client";
import { floor } from "@/api/floor";

/** The service worker once it answers for this page; null where there is none. */
async function keeper(): Promise<ServiceWorker | null> {
  if (!("serviceWorker" in navigator)) return null;
  await navigator.serviceWorker.ready;
  if (!navigator.serviceWorker.controller)
    await new Promise((claimed) => {
      navigator.serviceWorker.addEventListener("controllerchange", claimed, { once: true });
    });
  return navigator.serviceWorker.controller;
}

/**
 * Fetch the day's sessions before they are run: the service worker keeps the answers, so that they
 * can be opened where there is no connection. How many are kept.
 */
export function useAtHand(sessions: Schemas["FloorSession"][] | undefined): number {
  const [kept, setKept] = useState(0);
  const plans = sessions?.map((one) => one.plan).join(",") ?? "";
  useEffect(() => {
    let gone = false;
    const fetchAll = async () => {
      if (!plans || !(await keeper())) return;
      // The list itself was fetched before there was a keeper, the first time.
      await floor.day();
      let count = 0;
      for (const plan of plans.split(",")) {
        if (gone) return;
        await floor.run(Number(plan));
        count += 1;
        setKept(count);
      }
    };
    // Without a connection there is nothing to fetch: what was kept before stays.
    fetchAll().catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [plans]);
  return kept;
}
