import { useState } from "react";
import { onDevice } from "@/api/remember";

/** So many lines are kept that were asked about. */
const MOST = 100;

/** What was asked about and is meant as it stands: it is not asked again on this device. */
export function useMeant(athlete: number) {
  const name = `meant/${athlete}`;
  const [meant, setMeant] = useState<string[]>(() => stored(name));
  const add = (text: string) => {
    const all = [...meant.filter((one) => one !== text), text].slice(-MOST);
    onDevice.set(name, JSON.stringify(all));
    setMeant(all);
  };
  return { meant, add };
}

function stored(name: string): string[] {
  try {
    const found: unknown = JSON.parse(onDevice.get(name) ?? "[]");
    return Array.isArray(found) ? found.filter((one) => typeof one === "string") : [];
  } catch {
    return [];
  }
}
