import { useAddress } from "@/frame/useAddress";

/** Which squad and which week: the address says it. */
export function useSquadPlace() {
  const { params, put } = useAddress();
  return {
    squad: params.get("squad") ?? "",
    week: params.get("week") ?? "",
    put,
  };
}

/** The address of one of the squad's pages. */
export function squadPath(page: "" | "/draft", squad: string, week: string): string {
  const query = new URLSearchParams();
  if (squad) query.set("squad", squad);
  if (week) query.set("week", week);
  const text = query.toString();
  return `/squad${page}${text ? `?${text}` : ""}`;
}
