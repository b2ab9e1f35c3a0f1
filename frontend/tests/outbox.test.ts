// @vitest-environment happy-dom
import "fake-indexeddb/auto";
import { IDBFactory } from "fake-indexeddb";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Schemas } from "@/api/client";

type Body = Schemas["LogBody"];
type Sent = Body & { id: string };

/** A server that keeps logs, and can be cut off before or after it has heard. */
class Server {
  heard: Sent[] = [];
  line: "up" | "down" | "deaf" = "up";
  status = 200;
  answer: Partial<Schemas["LogSaved"]> = {};

  async fetch(request: Request): Promise<Response> {
    if (this.line === "down") throw new TypeError("no connection");
    const id = new URL(request.url).pathname.split("/").at(-1) ?? "";
    this.heard.push({ ...((await request.json()) as Body), id });
    if (this.line === "deaf") throw new TypeError("the answer got lost");
    if (this.status !== 200)
      return Response.json(
        { type: "x", detail: "That is no log.", problems: [] },
        { status: this.status },
      );
    return Response.json({
      revision: this.heard.length,
      client_id: id,
      both_kept: false,
      ...this.answer,
    });
  }
}

let server: Server;
let box: typeof import("@/api/outbox");

beforeEach(async () => {
  globalThis.indexedDB = new IDBFactory();
  server = new Server();
  vi.stubGlobal("fetch", (request: Request) => server.fetch(request));
  vi.resetModules();
  box = await import("@/api/outbox");
});

const log = (change: string, sets = 1): Body => ({
  change,
  revision: 0,
  after: [],
  plan: 7,
  session: {
    date: "2026-11-25",
    title: "",
    sets: Array.from({ length: sets }, () => ({ exercise: "Press", reps: 8 }) as Schemas["Set"]),
    rpe: null,
    duration_min: null,
    plan: null,
    notes: "",
    pain: [],
  },
});
const post = (change: string, id = "log-one", sets = 1) =>
  box.post({ id, athlete: 1, name: "Ada", body: log(change, sets) });
const left = async () => (await box.waiting()).map((one) => one.body.change);

/** Until what is under way has come to an end. */
async function settled(): Promise<void> {
  await box.send();
  await box.send();
}

describe("the outbox", () => {
  it("sends what is put in, and forgets it", async () => {
    await post("change-1");
    await settled();
    expect(server.heard.map((one) => one.change)).toEqual(["change-1"]);
    expect(await left()).toEqual([]);
  });

  it("keeps what cannot be sent, the latest of each log, and sends that later", async () => {
    server.line = "down";
    await post("change-1");
    await post("change-2", "log-one", 2);
    await post("change-3", "log-two");
    await settled();
    expect(await left()).toEqual(["change-2", "change-3"]);
    server.line = "up";
    await settled();
    expect(server.heard.map((one) => [one.id, one.change])).toEqual([
      ["log-one", "change-2"],
      ["log-two", "change-3"],
    ]);
    expect(await left()).toEqual([]);
  });

  it("says what it has sent where the answer got lost, so that it goes on from that", async () => {
    server.line = "deaf";
    await post("change-1");
    await settled();
    server.line = "up";
    await post("change-2", "log-one", 2);
    await settled();
    const last = server.heard.at(-1);
    expect(last?.change).toBe("change-2");
    expect(new Set(last?.after)).toEqual(new Set(["change-1"]));
    await post("change-3", "log-one", 3);
    await settled();
    expect(server.heard.at(-1)).toMatchObject({
      after: ["change-2"],
      revision: server.heard.length - 1,
    });
  });

  it("goes on from its own version where both were kept, on the revision that it knew", async () => {
    await post("change-1");
    await settled();
    server.answer = { both_kept: true, revision: 9 };
    await post("change-2", "log-one", 2);
    await settled();
    await post("change-3", "log-one", 3);
    await settled();
    expect(server.heard.at(-1)).toMatchObject({
      change: "change-3",
      revision: 1,
      after: ["change-2"],
    });
    expect(await box.besides()).toEqual(["Ada"]);
    // Somebody has taken this version: it goes on as the only one.
    server.answer = {};
    await post("change-4", "log-one", 4);
    await settled();
    expect(await box.besides()).toEqual([]);
  });

  it("keeps what the server refuses for good, says why, and lets the others through", async () => {
    server.status = 422;
    await post("change-1");
    await settled();
    server.status = 200;
    await post("change-2", "log-two");
    await settled();
    const [refused] = await box.waiting();
    expect([refused?.body.change, refused?.refused]).toEqual(["change-1", "That is no log."]);
    expect(server.heard.map((one) => one.change)).toEqual(["change-1", "change-2"]);
    await box.drop("log-one");
    expect(await left()).toEqual([]);
  });

  it.each([429, 503])("tries again after a status of %d", async (status) => {
    server.status = status;
    await post("change-1");
    await settled();
    expect((await box.waiting())[0]?.refused).toBeNull();
    server.status = 200;
    await settled();
    expect(await left()).toEqual([]);
  });

  it("does not lose a tap that comes while an earlier one is under way", async () => {
    let arrived: () => void = () => undefined;
    const on = new Promise<void>((resolve) => {
      arrived = resolve;
    });
    vi.stubGlobal("fetch", async (request: Request) => {
      await on;
      return server.fetch(request);
    });
    await post("change-1");
    await post("change-2", "log-one", 2);
    arrived();
    await settled();
    await settled();
    expect(server.heard.at(-1)?.change).toBe("change-2");
    expect(await left()).toEqual([]);
  });

  it("tells who listens, until they stop", async () => {
    const heard = vi.fn();
    const stop = box.listen(heard);
    await post("change-1");
    await settled();
    expect(heard.mock.calls.length).toBeGreaterThanOrEqual(2);
    stop();
    const before = heard.mock.calls.length;
    await box.drop("log-one");
    expect(heard.mock.calls.length).toBe(before);
  });

  it("keeps a run from one visit to the next", async () => {
    expect(await box.loadRun("7")).toBeUndefined();
    await box.saveRun("7", { steps: [1, 2] });
    expect(await box.loadRun("7")).toEqual({ steps: [1, 2] });
  });

  it("forgets a run that nobody looked at for months", async () => {
    await box.saveRun("7", { steps: [1] });
    const later = Date.now() + 61 * 24 * 3_600_000;
    vi.spyOn(Date, "now").mockReturnValue(later);
    await box.saveRun("8", { steps: [2] });
    expect([await box.loadRun("7"), await box.loadRun("8")]).toEqual([undefined, { steps: [2] }]);
    vi.restoreAllMocks();
  });
});

describe("a device that keeps nothing", () => {
  const boxes = () => import("@/api/boxes");

  it("works on in memory where the store is refused, says so, and sends", async () => {
    vi.stubGlobal("indexedDB", {
      open: () => {
        throw new DOMException("refused", "SecurityError");
      },
    });
    vi.resetModules();
    box = await import("@/api/outbox");
    server.line = "down";
    await post("one");
    expect((await box.waiting()).map((one) => one.body.change)).toEqual(["one"]);
    expect((await boxes()).isInMemory()).toBe(true);
    await box.saveRun("7", { step: 3 });
    expect(await box.loadRun("7")).toEqual({ step: 3 });
    server.line = "up";
    await box.send();
    expect(server.heard.map((one) => one.change)).toEqual(["one"]);
    expect(await box.waiting()).toEqual([]);
  });

  it("works on in memory where it never answers", async () => {
    vi.useFakeTimers();
    vi.stubGlobal("indexedDB", { open: () => new EventTarget() });
    vi.resetModules();
    box = await import("@/api/outbox");
    const run = box.loadRun("7");
    await vi.advanceTimersByTimeAsync(3000);
    expect(await run).toBeUndefined();
    vi.useRealTimers();
  });

  it("keeps in memory what finds no room, and what had room stays", async () => {
    await box.saveRun("7", { step: 1 });
    const full = vi.spyOn(IDBObjectStore.prototype, "put").mockImplementation(() => {
      throw new DOMException("full", "QuotaExceededError");
    });
    await box.saveRun("7", { step: 2 });
    expect(await box.loadRun("7")).toEqual({ step: 2 });
    expect((await boxes()).isInMemory()).toBe(true);
    full.mockRestore();
    await box.saveRun("7", { step: 3 });
    expect(await box.loadRun("7")).toEqual({ step: 3 });
    expect((await boxes()).isInMemory()).toBe(false);
  });

  it("forgets a run whose logs another one goes on with, and no other", async () => {
    await box.saveRun("7,8", { step: 1 });
    await box.saveRun("7,8,9", { step: 2 });
    await box.dropRun("7,8");
    expect([await box.loadRun("7,8"), await box.loadRun("7,8,9")]).toEqual([
      undefined,
      { step: 2 },
    ]);
  });

  it("forgets whoever was here, and keeps what waits where it can still be sent", async () => {
    const { forgetPerson } = await import("@/api/forget");
    server.line = "down";
    await post("one");
    await box.saveRun("7", { step: 1 });
    const { get, put } = await import("@/api/boxes");
    await put("sheets", "in hand", { file: new File(["Day;Lift"], "log.csv"), choice: null });
    localStorage.setItem("dialback.write/1/2026-W42/new/w", "typed");
    localStorage.setItem("dialback.theme", "dark");
    sessionStorage.setItem("dialback.last", "somebody");
    await forgetPerson({ unsent: false });
    expect(await box.waiting()).toHaveLength(1);
    expect(await box.loadRun("7")).toBeUndefined();
    expect(await get("sheets", "in hand")).toBeUndefined();
    expect(localStorage.getItem("dialback.write/1/2026-W42/new/w")).toBe("typed");
    expect(sessionStorage.length).toBe(0);
    await forgetPerson({ unsent: true });
    expect(await box.waiting()).toEqual([]);
    expect(Object.keys(localStorage)).toEqual(["dialback.theme"]);
  });

  it("keeps what was typed for the same person, not for another of that name", async () => {
    const { forgetPerson, lastHere, noteHere, wasHere } = await import("@/api/forget");
    const coach = { name: "Ada / Lind", role: "coach", athlete: null };
    expect(lastHere()).toBeNull();
    noteHere(coach);
    expect(lastHere()).toBe("Ada / Lind");
    expect(wasHere(coach)).toBe(true);
    expect(wasHere({ ...coach, role: "athlete", athlete: 3 })).toBe(false);
    await forgetPerson({ unsent: true });
    expect(lastHere()).toBeNull();
    expect(wasHere(coach)).toBe(false);
  });

  it("takes along what waited in the boxes of before", async () => {
    const { openDB } = await import("idb");
    const old = await openDB("dialback", 1, {
      upgrade(db) {
        db.createObjectStore("outbox", { keyPath: "id" });
        db.createObjectStore("sent");
        db.createObjectStore("runs");
      },
    });
    await old.put("outbox", {
      id: "log-one",
      athlete: 1,
      name: "Ada",
      body: log("older"),
      refused: null,
    });
    old.close();
    server.line = "down";
    expect((await box.waiting()).map((one) => one.body.change)).toEqual(["older"]);
    server.line = "up";
    await box.send();
    expect(server.heard.map((one) => one.change)).toEqual(["older"]);
  });
});
