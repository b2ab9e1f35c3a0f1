import { useEffect, useRef, useState } from "react";
import { type KeptSheet, get, put, takeIf } from "@/api/boxes";
import { useChange, useLook } from "@/api/changes";
import { Refusal, type Schemas } from "@/api/client";
import { sheets } from "@/api/sheets";

type Job = Schemas["JobOut"];
type Read = Schemas["SheetOut"];
type Choice = Schemas["SheetChoice"];

/** The one sheet that is in hand on a device. */
const IN_HAND = "in hand";

/**
 * A spreadsheet from its choice to its storing. It stays in hand on the device with all that was said
 * of it, over a reload too, until it is stored or put away; where the server no longer has it, it is
 * read once more.
 */
export function useSheetInHand() {
  const [read, setRead] = useState<Read | null>(null);
  const [choice, setChoice] = useState<Choice | null>(null);
  const [preview, setPreview] = useState<Schemas["SheetPreview"] | null>(null);
  const [stored, setStored] = useState<Schemas["SheetStored"] | null>(null);
  const [progress, setProgress] = useState<Job | null>(null);
  const file = useRef<File | null>(null);
  const token = useRef<string | null>(null);

  /** Send the file; what was said of it before holds, else what the heads say. */
  const send = async (said: Choice | null) => {
    if (!file.current) return;
    const job = await sheets.read(file.current, setProgress);
    token.current = job.token;
    setRead(job.sheet);
    const next = said ?? job.sheet?.choice ?? null;
    setChoice(next);
    await keep(file.current, next);
  };
  /** Work on the file that the server has; if it has forgotten it, it is sent again. */
  const withFile = async <Out>(work: (at: string) => Promise<Out>, said: Choice): Promise<Out> => {
    if (!token.current) await send(said);
    try {
      return await work(token.current ?? "");
    } catch (problem) {
      if (!(problem instanceof Refusal) || problem.status !== 404 || !file.current) throw problem;
      await send(said);
      return work(token.current ?? "");
    }
  };
  const putAway = () => {
    file.current = null;
    token.current = null;
    setRead(null);
    setChoice(null);
    setPreview(null);
    void takeIf("sheets", IN_HAND, () => true);
  };

  const open = useLook(async (chosen: { file: File; choice: Choice | null }) => {
    setPreview(null);
    setStored(null);
    file.current = chosen.file;
    await send(chosen.choice);
  });
  const { look, lookAt, forget } = useLooks(
    async (wanted) => withFile((at) => sheets.preview(at, wanted, setProgress), wanted),
    ({ preview }) => setPreview(preview),
  );
  const store = useChange(async () => {
    if (!choice) return;
    const done = await withFile((at) => sheets.store(at, choice, setProgress), choice);
    setStored(done.stored);
    putAway();
  });

  const saveLeft = useLook(async () => {
    if (!choice || !file.current) return;
    const rows = await withFile((at) => sheets.left(at, choice), choice);
    download(rows, `${file.current.name.replace(/\.[^.]*$/, "")}.left-out.csv`);
  });

  // What was in hand when the page was left is in hand again.
  const { mutate: openAgain } = open;
  useEffect(() => {
    let gone = false;
    void get("sheets", IN_HAND).then((kept) => {
      if (kept && !gone && !file.current) openAgain(kept);
    });
    return () => {
      gone = true;
    };
  }, [openAgain]);

  const say = (next: Choice) => {
    setChoice(next);
    if (file.current) void keep(file.current, next);
  };
  return {
    read,
    choice,
    preview,
    stored,
    progress,
    busy: open.isPending || look.isPending || store.isPending,
    error: open.error ?? look.error ?? store.error ?? saveLeft.error,
    open: (chosen: File) => open.mutate({ file: chosen, choice: null }),
    look: () => choice && lookAt(choice),
    store: () => store.mutate(undefined),
    putAway,
    saveLeft: () => saveLeft.mutate(undefined),
    /** What the columns mean: to be looked at anew. */
    put: (part: Partial<Choice>) => {
      if (choice) say({ ...choice, ...part });
      forget();
      setPreview(null);
    },
    /** What is said in the preview: it is looked at anew, and stays meanwhile. */
    settle: (part: Partial<Choice>) => {
      if (!choice) return;
      const next = { ...choice, ...part };
      say(next);
      lookAt(next);
    },
  };
}

/**
 * One look at a time: what is said while it lasts is looked at after it, the latest alone. What is
 * forgotten meanwhile is not shown.
 */
function useLooks(lookOnce: (wanted: Choice) => Promise<Job>, show: (job: Job) => void) {
  const next = useRef<Choice | null>(null);
  const now = useRef<Choice | null>(null);
  const busy = useRef(false);
  const look = useLook(async () => {
    busy.current = true;
    try {
      while (next.current) {
        const wanted = next.current;
        [now.current, next.current] = [wanted, null];
        const found = await lookOnce(wanted);
        if (now.current === wanted) show(found);
      }
    } finally {
      busy.current = false;
    }
  });
  const lookAt = (wanted: Choice) => {
    next.current = wanted;
    if (!busy.current) look.mutate(undefined);
  };
  const forget = () => {
    [now.current, next.current] = [null, null];
  };
  return { look, lookAt, forget };
}

const keep = (file: File, choice: Choice | null) =>
  put("sheets", IN_HAND, { file, choice } satisfies KeptSheet);

function download(what: Blob, name: string) {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(what);
  link.download = name;
  link.click();
  URL.revokeObjectURL(link.href);
}
