import { type QueryClient, useQuery, useQueryClient } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";
import { forgetPerson, forgetShown, noteHere, wasHere } from "./forget";
import { typed } from "./typed";

export type Who = Schemas["WhoOut"];
export type Right = Who["rights"][number];

const KEY = ["me"];

/** Who is at this device, and what they may do. */
export function useMe() {
  return useQuery({
    queryKey: KEY,
    queryFn: async () => {
      const who = given(await client.GET("/api/me"));
      if (who.state === "in") noteHere(who);
      else if (who.withdrawn) await forgetPerson({ unsent: true });
      else if (who.state === "out") {
        typed.keep();
        await forgetShown();
      }
      return who;
    },
  });
}

/** Whether whoever is here has a right over everybody; no as long as it is not known. */
export function useMay(right: Right): boolean {
  return useMe().data?.rights.includes(right) ?? false;
}

/** The devices on which whoever is here is signed in. */
export function useOwnDevices() {
  return useQuery({
    queryKey: ["devices"],
    queryFn: async () => given(await client.GET("/api/me/devices")).devices,
  });
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

/** The server does not know this device any more; it says whether for good. */
export function signedOut(queries: QueryClient): void {
  const who = queries.getQueryData<Who>(KEY);
  if (!who || who.state === "out") return;
  typed.keep();
  arrived(queries, { ...who, state: "out", name: "", rights: [], athlete: null });
  void queries.invalidateQueries({ queryKey: KEY });
}

/** Somebody signs in: what waits here is theirs, or it is another's and goes. */
async function comesAs(who: Who): Promise<void> {
  if (!wasHere(who)) await forgetPerson({ unsent: false });
  noteHere(who);
}

export const me = {
  signIn: async (name: string, password: string, code: string) => {
    const who = given(await client.POST("/api/sign-in", { body: { name, password, code } }));
    await comesAs(who);
    return who;
  },
  openDoor: async (token: string) => {
    const who = given(await client.POST("/api/door", { body: { token } }));
    await comesAs(who);
    return who;
  },
  signOut: async () => {
    await client.POST("/api/sign-out");
    await forgetPerson({ unsent: true });
    return given(await client.GET("/api/me"));
  },
  password: async (old: string, wanted: string) =>
    given(await client.POST("/api/me/password", { body: { old, new: wanted } })),
  drawSecond: async () => given(await client.POST("/api/me/second-factor/draw")),
  beginSecond: async (password: string, code: string) =>
    given(await client.POST("/api/me/second-factor", { body: { password, code } })).codes,
  endSecond: async (password: string, code: string) =>
    given(await client.POST("/api/me/second-factor/end", { body: { password, code } })),
  signOutThere: async (device: number) =>
    given(await client.POST("/api/me/devices/{device}/sign-out", { params: { path: { device } } })),
};
