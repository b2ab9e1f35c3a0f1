import { useEffect, useRef } from "react";

interface Key {
  /** `event.key`, as typed. */
  key: string;
  says: string;
  where: "Everywhere" | "With an athlete" | "Block" | "Write" | "Week sheet" | "Log" | "Dial";
}

/** Every key of the application: the help sheet and the listeners are made from this table. */
export const KEYS = {
  help: { key: "?", says: "This sheet", where: "Everywhere" },
  roster: { key: "r", says: "Roster", where: "Everywhere" },
  movements: { key: "e", says: "Movements", where: "Everywhere" },
  squad: { key: "S", says: "Squad: what several have in common", where: "Everywhere" },
  floor: { key: "t", says: "Floor: run today's sessions", where: "Everywhere" },
  house: { key: "h", says: "House rules", where: "Everywhere" },
  kit: { key: "i", says: "Kit: what the room has", where: "Everywhere" },
  files: { key: "f", says: "Files", where: "Everywhere" },
  people: { key: ";", says: "People: who can sign in", where: "Everywhere" },
  journal: { key: ":", says: "Journal: who changed what", where: "Everywhere" },
  find: { key: "/", says: "Find", where: "Everywhere" },
  print: { key: "P", says: "Print plans: one athlete, a squad, everybody", where: "Everywhere" },
  theme: { key: "l", says: "Light or dark", where: "Everywhere" },
  block: { key: "k", says: "Block: the coming weeks", where: "With an athlete" },
  write: { key: "w", says: "Write: the week's sessions as text", where: "With an athlete" },
  sheet: { key: "s", says: "Week sheet", where: "With an athlete" },
  season: { key: ",", says: "Season: the long line", where: "With an athlete" },
  dial: { key: "d", says: "Dial: the next week's draft", where: "With an athlete" },
  own: { key: "o", says: "Profile: body weight, limits, own rules", where: "With an athlete" },
  log: { key: "g", says: "Log: what was actually done", where: "With an athlete" },
  weekBack: { key: "[", says: "Previous week", where: "With an athlete" },
  weekOn: { key: "]", says: "Next week", where: "With an athlete" },
  basis: { key: "b", says: "Judge what was done, or what was planned", where: "Week sheet" },
  nextFinding: {
    key: "n",
    says: "Next cause or finding, with its trail (on the squad, too)",
    where: "Week sheet",
  },
  previousFinding: { key: "p", says: "Previous cause or finding", where: "Week sheet" },
  unfold: { key: "j", says: "Open the cause: what follows from it", where: "Week sheet" },
  measure: { key: "m", says: "Rows in the next measure", where: "Week sheet" },
  accept: { key: "a", says: "Accept the cause or finding, with a reason", where: "Week sheet" },
  closeTrail: { key: "Escape", says: "Close the trail", where: "Week sheet" },
  copy: { key: "c", says: "Copy the session", where: "Block" },
  cut: { key: "x", says: "Cut the session, to move it", where: "Block" },
  paste: { key: "v", says: "Paste on this day", where: "Block" },
  firstAnswer: {
    key: "1",
    says: "First answer to a question about a line (2 the second, and so on)",
    where: "Write",
  },
  asPlanned: {
    key: "y",
    says: "Log the session as planned, and move on to the next",
    where: "Log",
  },
  less: { key: "-", says: "Turn the dial down by one set", where: "Dial" },
  more: { key: "+", says: "Turn the dial up by one set", where: "Dial" },
  propose: {
    key: "q",
    says: "Propose what to change (in the whole block, on the block; for all, on the squad)",
    where: "Dial",
  },
  takeAll: { key: "z", says: "Take the whole proposal", where: "Dial" },
  nextSteps: { key: ".", says: "Next steps of the movements", where: "Dial" },
  undo: {
    key: "u",
    says: "Undo the last change (on the block, in the log and for a squad, too)",
    where: "Dial",
  },
} as const satisfies Record<string, Key>;

export type KeyAction = keyof typeof KEYS;

const BY_KEY = new Map<string, KeyAction>(
  Object.entries(KEYS).map(([action, { key }]) => [key, action as KeyAction]),
);

/** Who holds the keys back: a place where one writes, whatever has the focus. */
let held: ((event: KeyboardEvent) => void) | null = null;

/**
 * While one writes, a letter is a letter wherever the focus is: no key goes anywhere. What is typed
 * beside the text is handed over, for instance to put the focus back into it.
 */
export function useHeldKeys(hold: boolean, strayed: (event: KeyboardEvent) => void): void {
  const latest = useRef(strayed);
  useEffect(() => {
    latest.current = strayed;
  });
  useEffect(() => {
    if (!hold) return undefined;
    const own = (event: KeyboardEvent) => {
      // What has no meaning of its own there: letters and figures, not blanks that press a button.
      if (event.key.length === 1 && event.key !== " ") latest.current(event);
    };
    held = own;
    return () => {
      if (held === own) held = null;
    };
  }, [hold]);
}

/** Whether a key goes into a field. */
export function isTyping(event: KeyboardEvent): boolean {
  // Inside a shadow root the event's target is only the host.
  const [target] = event.composedPath();
  return (
    target instanceof HTMLElement &&
    target.closest("input, textarea, select, [contenteditable]") !== null
  );
}

/** Listen to some of the keys while the component is there. */
export function useKeys(handlers: Partial<Record<KeyAction, () => void>>): void {
  const latest = useRef(handlers);
  useEffect(() => {
    latest.current = handlers;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return;
      // A key that is held down does what it does once.
      if (event.repeat || isTyping(event) || document.querySelector("[role=dialog]")) return;
      if (held) {
        held(event);
        return;
      }
      const action = BY_KEY.get(event.key);
      const handle = action && latest.current[action];
      if (!handle) return;
      event.preventDefault();
      handle();
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, []);
}
