import type { Sheet } from "@/api/write";
import type { Copy } from "./device";

export type { Sheet };

type Written = Pick<Sheet, "date" | "title" | "text">;

/** Whether two say the same. */
export const same = (one: Written, other: Written): boolean =>
  one.text === other.text && one.title === other.title && one.date === other.date;

/** The name of a desk on the device: the session's number, or the day of a new one. */
export const deskOf = (sheet: Sheet): string =>
  sheet.id === null ? `new-${sheet.date}` : String(sheet.id);

/** What is kept of it on the device. */
export const copyOf = (sheet: Sheet, client: string): Copy => ({
  date: sheet.date,
  title: sheet.title,
  text: sheet.text,
  revision: sheet.revision,
  client,
  at: Date.now(),
});
