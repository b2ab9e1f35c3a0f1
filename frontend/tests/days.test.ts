import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

/** Where hours are doubled and missing in the night, at midnight, and where days were skipped. */
const ZONES = [
  "Europe/Berlin",
  "America/New_York",
  "America/Santiago",
  "Asia/Kolkata",
  "Australia/Lord_Howe",
  "Pacific/Kiritimati",
  "Pacific/Pago_Pago",
];
const home = process.env.TZ;

describe.each(ZONES)("on a device in %s", (zone) => {
  let words: typeof import("@/words");

  beforeEach(async () => {
    process.env.TZ = zone;
    vi.resetModules();
    words = await import("@/words");
  });
  afterEach(() => {
    process.env.TZ = home;
  });

  it("calls every day of a year by its own name, and goes from one to the next", () => {
    const clock = new Intl.DateTimeFormat("en-GB", { timeZone: zone, timeStyle: "short" });
    const now = new Date();
    expect(clock.format(now)).toBe(
      new Intl.DateTimeFormat("en-GB", { timeStyle: "short" }).format(now),
    );
    const plain = { timeZone: "UTC" } as const;
    const weekday = new Intl.DateTimeFormat("en-GB", { weekday: "long", ...plain });
    for (let at = 0; at < 366; at += 1) {
      const day = new Date(Date.UTC(2026, 0, 1 + at));
      const iso = day.toISOString().slice(0, 10);
      const next = new Date(Date.UTC(2026, 0, 2 + at)).toISOString().slice(0, 10);
      expect(words.weekday(iso)).toBe(weekday.format(day));
      expect(words.day(iso)).toContain(` ${day.getUTCDate()} `);
      expect(words.dayAfter(iso, 1)).toBe(next);
      expect(words.dayAfter(next, -1)).toBe(iso);
    }
  });
});
