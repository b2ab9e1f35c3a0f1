// @vitest-environment happy-dom
import { expect, it } from "vitest";
import { Refusal } from "@/api/client";
import { inOrder } from "@/api/inOrder";

/** A server with one thing that has a revision; an answer can be lost on the way back. */
function server() {
  const here = { says: "", revision: 0, deaf: false };
  const send = async (body: { says: string; revision: number }) => {
    const known = body.says === here.says;
    if (!known && body.revision !== here.revision)
      throw new Refusal(409, "stale", "changed in another window", []);
    if (!known) Object.assign(here, { says: body.says, revision: here.revision + 1 });
    if (here.deaf) throw new Refusal(0, "offline", "no answer", []);
    return here.revision;
  };
  return { here, send };
}

it("sends what was lost once more before anything newer", async () => {
  const { here, send } = server();
  let revision = 0;
  const inTurn = inOrder(send, (answer) => {
    revision = answer;
  });
  here.deaf = true;
  await expect(inTurn(() => ({ says: "first", revision }))).rejects.toThrow("no answer");
  here.deaf = false;
  await inTurn(() => ({ says: "second", revision }));
  expect(here.says).toBe("second");
  expect(revision).toBe(2);
});

it("does not send again what was refused", async () => {
  const { here, send } = server();
  here.revision = 5;
  const inTurn = inOrder(send, () => undefined);
  await expect(inTurn(() => ({ says: "old", revision: 1 }))).rejects.toThrow("another window");
  await inTurn(() => ({ says: "new", revision: 5 }));
  expect(here.says).toBe("new");
});
