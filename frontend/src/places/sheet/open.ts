import type { Basis, Schemas } from "@/api/client";
import { WHOLE_WEEK } from "@/words";

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
  one.subject === WHOLE_WEEK ? one.measure : one.subject;
