import { readFileSync, readdirSync } from "node:fs";
import { expect, it } from "vitest";

/** What coaches do not say, and what they say instead. */
const INSTEAD: Record<string, string> = {
  lamp: "Light or dark",
  "take off": "Archive, Remove",
  "taken off": "archived, removed",
  "take out": "Remove",
  "taken out": "removed",
  "take up": "Use",
  "take back": "Undo, Withdraw",
  "taken back": "undone",
  "put down": "Paste",
  "put aside": "archived",
  "put back": "Restore",
  "put away": "Close",
  "lay this": "Repeat this",
  "laid for": "Used for",
  "look what it comes to": "Preview",
  "let go": "Dismiss, Unlock",
  "go on": "Continue, Resume",
  "all the same": "anyway",
  anew: "again",
  meanwhile: "in the meantime",
  "nobody knows": "unknown",
  "come in": "sign in",
  "otherwise than": "different from",
};

const files = readdirSync("src", { recursive: true, encoding: "utf8" }).filter(
  (name) => /\.tsx?$/.test(name) && !name.endsWith("schema.d.ts"),
);

/** A source without what only its readers see. */
const said = (source: string) =>
  source
    .replace(/\/\*[\s\S]*?\*\//g, " ")
    .replace(/^\s*\/\/.*$/gm, " ")
    .replace(/\s+/g, " ");

it.each(Object.entries(INSTEAD))("nobody is told to “%s”: say %s", (words) => {
  const found = files.filter((name) =>
    new RegExp(`\\b${words}\\b`, "i").test(said(readFileSync(`src/${name}`, "utf8"))),
  );
  expect(found).toEqual([]);
});
