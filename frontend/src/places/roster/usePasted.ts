import { useEffect, useMemo, useState } from "react";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type Schemas, messageOf } from "@/api/client";
import { people as calls } from "@/api/roster";
import { useInWindow } from "@/shared/useInWindow";

type Newcomer = Schemas["NewcomerOut"];
export type Said = Pick<Newcomer, "name" | "bodyweight_kg" | "note" | "squad" | "level" | "born">;
/** A person of the table: who keeps what was corrected as long as their line stays as it is. */
export type Person = Newcomer & { key: string };

const ASK_AFTER_MS = 200;

/** What it was a moment ago: nobody is asked at every key. */
function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value);
  const text = JSON.stringify(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(JSON.parse(text) as T), ASK_AFTER_MS);
    return () => clearTimeout(timer);
  }, [text]);
  return settled;
}

/** Their line, and which of those on it: the same after another line came above. */
function keyed(people: Newcomer[], text: string): Person[] {
  const lines = text.split("\n");
  const seen = new Map<string, number>();
  return people.map((one) => {
    const line = (lines[one.line - 1] ?? "").trim();
    const nth = seen.get(line) ?? 0;
    seen.set(line, nth + 1);
    return { ...one, key: `${nth} ${line}` };
  });
}

/** The people of a pasted text as the server reads it, with what was corrected by hand. */
export function usePasted() {
  const [text, setText] = useInWindow("pasted", "");
  const [edits, setEdits] = useInWindow<Record<string, Partial<Said>>>("pasted, edits", {});
  const [dropped, setDropped] = useInWindow<string[]>("pasted, dropped", []);
  const settled = useSettled(text);
  const read = useQuery({
    queryKey: ["pasted", settled],
    queryFn: async ({ signal }) =>
      (await calls.read({ text: settled, people: null }, signal)).people,
    enabled: settled.trim() !== "",
    placeholderData: keepPreviousData,
    staleTime: 0,
  });
  const people = useMemo(() => {
    const found = settled.trim() === "" ? [] : keyed(read.data ?? [], settled);
    return found
      .filter((one) => !dropped.includes(one.key))
      .map((one) => ({ ...one, ...edits[one.key] }));
  }, [read.data, settled, edits, dropped]);
  const asked = useSettled(people.map(bare));
  const checked = useQuery({
    queryKey: ["pasted, checked", asked],
    queryFn: async ({ signal }) => (await calls.read({ text: "", people: asked }, signal)).people,
    enabled: asked.length > 0,
    placeholderData: keepPreviousData,
    staleTime: 0,
  });
  const isOf = JSON.stringify(asked) === JSON.stringify(people.map(bare));
  const isChecked = isOf && text === settled && checked.isSuccess && !checked.isPlaceholderData;
  const error = read.error ?? checked.error;
  return {
    text,
    setText,
    people: people.map((one, at) => ({
      ...one,
      problem: isChecked ? (checked.data[at]?.problem ?? "") : one.problem,
    })),
    /** Whether what is shown is what the server has said it takes. */
    isChecked,
    error: error && messageOf(error),
    put: (key: string, part: Partial<Said>) =>
      setEdits((now) => ({ ...now, [key]: { ...now[key], ...part } })),
    drop: (key: string) => setDropped((now) => [...now, key]),
    dropped: dropped.length,
    takeBack: () => setDropped([]),
    body: () => ({ text: "", people: people.map(bare) }),
    forget: () => {
      setText("");
      setEdits({});
      setDropped([]);
    },
  };
}

const bare = ({ line, name, bodyweight_kg, note, squad, level, born }: Person) => ({
  line,
  name,
  bodyweight_kg,
  note,
  squad,
  level,
  born,
});
