import type { Schemas } from "@/api/client";
import { KEYS, useKeys } from "@/frame/keys";
import { count, day } from "@/words";
import { Folded } from "./Folded";
import { gains } from "./gains";
import { type Step, asTaken, bundled } from "./proposed";
import type { ProposalDesk } from "./useProposal";

interface Props {
  desk: ProposalDesk;
  take: (steps: Schemas["TakeStep"][]) => Promise<void>;
}

/** What little change does much: the ladder, each step with its reason, to take one or all. */
export function Proposals({ desk, take }: Props) {
  const { open, setOpen, locks, setLocks, setBudget, proposal, asking, error } = desk;
  const steps = proposal?.steps ?? [];
  const takeAll = () => {
    if (!steps.length) return;
    void take(steps.map(asTaken));
    setBudget(null);
  };
  useKeys({
    propose: () => setOpen((now) => !now),
    takeAll: () => {
      if (open) takeAll();
    },
  });
  return (
    <Folded
      label="Proposal"
      title="What to change"
      beside={
        asking && (
          <span role="status" className="text-sm text-ink-2 italic">
            calculating…
          </span>
        )
      }
      opens="Propose"
      keyName={KEYS.propose.key}
      open={open}
      toggle={() => setOpen(!open)}
      error={error}
    >
      {proposal && (
        <Found
          proposal={proposal}
          asking={asking}
          atStop={desk.budget === null}
          locks={locks}
          setLocks={setLocks}
          declining={desk.declining}
          take={take}
          takeAll={takeAll}
        />
      )}
    </Folded>
  );
}

const UNITS = { line: "", circuit: " rounds", new: "" };

interface BundleProps {
  steps: Step[];
  take: () => void;
  lock: (step: Step) => void;
  decline: () => void;
}

/** Steps that need each other, with what they do together. */
function Bundle({ steps, take, lock, decline }: BundleProps) {
  const [first] = steps;
  return (
    <li className="border-b border-hair py-1">
      <div className="flex items-baseline gap-2">
        <ul className="min-w-0 flex-1">
          {steps.map((step) => (
            <StepLine
              key={`${step.session}/${step.line ?? step.movement}`}
              step={step}
              lock={() => lock(step)}
            />
          ))}
        </ul>
        <button type="button" className="key-button" onClick={take}>
          {steps.length === 1 ? "Take" : steps.length === 2 ? "Take both" : "Take these"}
        </button>
      </div>
      <p className="flex items-baseline gap-2 pl-12 text-ink-2">
        <span className="min-w-0 flex-1">
          {first?.reason && `${first.reason}. `}The week: {gains(first?.effect ?? {})}.
        </span>
        <button
          type="button"
          className="trail-link min-h-6"
          title="Not proposed again until the block ends, or for four weeks"
          onClick={decline}
        >
          decline
        </button>
      </p>
    </li>
  );
}

function StepLine({ step, lock }: { step: Step; lock: () => void }) {
  return (
    <li className="flex items-baseline gap-2">
      <span className="w-10 shrink-0 text-ink-2">{day(step.day).split(" ")[0]}</span>
      <span className="min-w-0 font-semibold">{step.movement}</span>
      <span
        className="whitespace-nowrap"
        aria-label={`from ${step.count_from} to ${step.count_to}`}
      >
        {step.kind === "new" ? `new, ${step.count_to}` : `${step.count_from} → ${step.count_to}`}
        {UNITS[step.kind]}
      </span>
      {step.kind === "line" && (
        <button type="button" className="trail-link ml-auto min-h-6 text-ink-2" onClick={lock}>
          lock
        </button>
      )}
    </li>
  );
}

/** What was declined last, with the way back. */
function Declined({ declining }: Pick<FoundProps, "declining">) {
  return (
    <>
      {declining.error && (
        <p role="alert" className="mt-2 text-sm text-high">
          {declining.error}
        </p>
      )}
      {declining.last && (
        <p role="status" className="mt-2 text-sm">
          Declined: {declining.last.says}.{" "}
          <button
            type="button"
            className="trail-link"
            disabled={declining.pending}
            onClick={declining.undo}
          >
            Undo
          </button>
        </p>
      )}
    </>
  );
}

interface FoundProps {
  proposal: Schemas["ProposalOut"];
  asking: boolean;
  /** Whether it is the one that the tool itself would stop at. */
  atStop: boolean;
  locks: string[];
  setLocks: (how: (all: string[]) => string[]) => void;
  declining: ProposalDesk["declining"];
  take: Props["take"];
  takeAll: () => void;
}

/** The proposal: its ladder, its steps, and what would stay. */
function Found(props: FoundProps) {
  const { proposal, asking, atStop, locks, setLocks, declining, take, takeAll } = props;
  const { steps } = proposal;
  const sets = steps.reduce((sum, step) => sum + step.sets, 0);
  return (
    <div aria-busy={asking}>
      {proposal.ladder.length > 1 && (
        <p className="mt-1 text-xs text-ink-2">
          The dial runs from the draft as it is to everything that can be cleared, with a stop for
          each gain: outside what it costs, inside what stays open. It starts where more change
          would cost more than it clears. A set costs 1. Piling sets onto one movement or session,
          cutting a first lift, adding or dropping a line, and a bigger or smaller week cost more.
        </p>
      )}
      {locks.length > 0 && (
        <p className="mt-2 text-sm">
          Locked: {locks.join(", ")}.{" "}
          <button type="button" className="trail-link" onClick={() => setLocks(() => [])}>
            Unlock
          </button>
        </p>
      )}
      <Declined declining={declining} />
      {/* What is being worked out is not what stood here; its place is kept. */}
      <div className={asking ? "invisible" : ""}>
        {steps.length === 0 ? (
          <p className="mt-2 text-sm text-ink-2">
            {proposal.remaining.length === 0
              ? "Nothing is open that a change of sets could clear."
              : proposal.ladder.length > 1
                ? "As it is: nothing is changed. Turn the dial for what little change buys."
                : "No change of sets within the rules does better."}
          </p>
        ) : (
          <>
            <p className="mt-2 text-sm font-semibold">
              {count(sets, "set")} more or fewer: {proposal.cleared.length} of{" "}
              {count(proposal.cleared.length + proposal.remaining.length, "finding")} would clear.
            </p>
            <ul className="mt-1 text-sm">
              {bundled(steps).map((bundle) => (
                <Bundle
                  key={bundle.map((one) => `${one.session}/${one.line ?? one.movement}`).join()}
                  steps={bundle}
                  take={() => void take(bundle.map(asTaken))}
                  decline={() => declining.decline(bundle)}
                  lock={(one) => setLocks((all) => [...all, ...one.movement.split(" + ")])}
                />
              ))}
            </ul>
            <button
              type="button"
              className="ink-button mt-2"
              onClick={takeAll}
              title={`Key ${KEYS.takeAll.key}`}
            >
              Take {steps.length === 1 ? "it" : `all ${steps.length}`}
            </button>
          </>
        )}
        {atStop && proposal.why && proposal.remaining.length > 0 && (
          <p className="mt-2 text-sm text-ink-2">{proposal.why}</p>
        )}
        {proposal.remaining.length > 0 && (
          <details className="mt-2 text-sm">
            <summary className="text-ink-2">
              {count(proposal.remaining.length, "finding")} would stay
            </summary>
            <ul className="list-disc pl-5">
              {proposal.remaining.map((one) => (
                <li key={one}>{one}</li>
              ))}
            </ul>
          </details>
        )}
        {!proposal.optimal && (
          <p className="mt-1 text-xs text-ink-2">
            The best found in the time; there may be a better one.
          </p>
        )}
      </div>
    </div>
  );
}
