import { Refusal } from "./client";

/** Whether the server has said what became of it: yes, or no. */
export const isAnswered = (problem: unknown): boolean =>
  problem instanceof Refusal && problem.status >= 400 && problem.status < 500;

/**
 * Changes of one thing, sent one after the other. One whose answer was lost is sent again as it
 * was before anything newer goes: the server knows it, and does not take it for another window's.
 */
export function inOrder<B, A>(send: (body: B) => Promise<A>, answered: (answer: A) => void) {
  let lost: B | null = null;
  const once = async (body: B): Promise<A> => {
    lost = body;
    try {
      const answer = await send(body);
      lost = null;
      answered(answer);
      return answer;
    } catch (problem) {
      if (isAnswered(problem)) lost = null;
      throw problem;
    }
  };
  return async (body: () => B): Promise<A> => {
    if (lost !== null) await once(lost);
    return once(body());
  };
}
