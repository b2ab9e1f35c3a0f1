import { useQuery } from "@tanstack/react-query";
import { type Schemas, client, given } from "./client";

/** Who may come in, and what the roles are. */
export function useAccounts(ask: boolean) {
  return useQuery({
    queryKey: ["accounts"],
    queryFn: async () => given(await client.GET("/api/accounts")),
    enabled: ask,
  });
}

const at = (account: number) => ({ params: { path: { account } } });
const of = (athlete: number) => ({ params: { path: { athlete_id: athlete } } });

export const accounts = {
  make: async (body: Schemas["NewAccountBody"]) =>
    given(await client.POST("/api/accounts", { body })),
  role: async (account: number, role: Schemas["RoleBody"]["role"]) =>
    given(await client.PUT("/api/accounts/{account}", { ...at(account), body: { role } })),
  password: async (account: number, password: string) =>
    given(
      await client.POST("/api/accounts/{account}/password", { ...at(account), body: { password } }),
    ),
  endSecond: async (account: number) =>
    given(await client.POST("/api/accounts/{account}/second-factor/end", at(account))),
  remove: async (account: number) =>
    given(await client.POST("/api/accounts/{account}/remove", at(account))),
  door: async (athlete: number) =>
    given(await client.POST("/api/athletes/{athlete_id}/door", of(athlete))),
  withdraw: async (athlete: number) =>
    given(await client.POST("/api/athletes/{athlete_id}/door/withdraw", of(athlete))),
};
