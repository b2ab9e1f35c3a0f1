import type { Basis, Schemas } from "@/api/client";

export type Sheet = Schemas["Sheet"];
export type Finding = Schemas["FindingOut"];

/** What is open beside the sheet: figures with their basis, and days if only some are meant. */
export interface OpenTrail {
  figures: string[];
  basis: Basis;
  days: string;
}

/** The row at whose margin a finding stands. */
export const rowOf = (one: Pick<Finding, "code" | "subject" | "measure">): string =>
  one.subject === "total" ? one.measure : one.subject;
