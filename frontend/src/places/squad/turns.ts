import type { Schemas } from "@/api/client";

/** A change of a squad's draft, in words. */
export type Turn = Schemas["SquadTurnOut"];

type Where = Pick<Turn, "athlete" | "session" | "line" | "movement">;

const isAt = (one: Where, where: Where) =>
  one.athlete === where.athlete &&
  one.session === where.session &&
  one.line === where.line &&
  (one.line !== null || one.movement === where.movement);

/** The changes without the one at a place. */
export const without = (turns: Turn[], where: Where): Turn[] =>
  turns.filter((one) => !isAt(one, where));

/** The changes with another one, in place of an older one at its place. */
export const withTurn = (turns: Turn[], turn: Turn): Turn[] => [...without(turns, turn), turn];

/** The change at a place, if there is one. */
export const turnAt = (turns: Turn[], where: Where): Turn | undefined =>
  turns.find((one) => isAt(one, where));

/** As the server is told of it. */
export const asBody = ({ athlete, session, line, movement, count }: Turn): Schemas["TurnBody"] => ({
  athlete,
  session,
  line,
  movement,
  count,
});

/** Whether a change stands in the draft as it is. */
export const isTaken = (turns: Turn[], turn: Turn): boolean =>
  turnAt(turns, turn)?.count === turn.count;
