import { type QueryClient, useQuery, useQueryClient } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";

export type Who = Schemas["WhoOut"];
export type Right = Who["rights"][number];

const KEY = ["me"];

/** Who is at this device, and what they may do. */
export function useMe() {
  return useQuery({
    queryKey: KEY,
    queryFn: async () => {
      const who = given(await client.GET("/api/me"));
      if (who.state === "out") await forgetAnswers();
      return who;
    },
  });
}

/** Whether whoever is here has a right over everybody; no as long as it is not known. */
export function useMay(right: Right): boolean {
  return useMe().data?.rights.includes(right) ?? false;
}

/** Somebody else is here now, or nobody: nothing that was shown is theirs. */
export function useComing() {
  const queries = useQueryClient();
  return (who: Who) => arrived(queries, who);
}

export function arrived(queries: QueryClient, who: Who): void {
  queries.removeQueries({ predicate: (one) => one.queryKey[0] !== KEY[0] });
  queries.setQueryData(KEY, who);
}

/** The server does not know this device any more. */
export function signedOut(queries: QueryClient): void {
  const who = queries.getQueryData<Who>(KEY);
  if (who && who.state !== "out")
    arrived(queries, { ...who, state: "out", name: "", rights: [], athlete: null });
}

/** What the service worker keeps for the floor belongs to whoever was here. */
async function forgetAnswers(): Promise<void> {
  if ("caches" in window) await caches.delete("dialback-answers");
}

export const me = {
  signIn: async (name: string, password: string) => {
    const who = given(await client.POST("/api/sign-in", { body: { name, password } }));
    await forgetAnswers();
    return who;
  },
  openDoor: async (token: string) => {
    const who = given(await client.POST("/api/door", { body: { token } }));
    await forgetAnswers();
    return who;
  },
  signOut: async () => {
    await client.POST("/api/sign-out");
    await forgetAnswers();
    // What was in hand in this window is nobody else's to find.
    sessionStorage.clear();
    return given(await client.GET("/api/me"));
  },
  password: async (old: string, wanted: string) =>
    given(await client.POST("/api/me/password", { body: { old, new: wanted } })),
};
