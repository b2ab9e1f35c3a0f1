import type { Schemas } from "@/api/client";
import { DialogSheet } from "@/frame/DialogSheet";
import type { CoreSet } from "@/api/client";
import { keptWeight, typedWeight, weight, weightUnit } from "@/words";
import { type Beyond, beyond } from "@/shared/coreRules";
import { type Piece, canSplit } from "./pieces";
import { Said } from "./Said";
import type { Run } from "./run";
import { Count, Row, Tap } from "./taps";
import { type SetInHand, useSetInHand } from "./useSetInHand";

interface Props {
  run: Run;
  set: CoreSet;
  /** Whether it is done: then it is corrected, and what is chosen is of it alone. */
  isDone: boolean;
  movements: Schemas["FloorMovement"][];
  names: string[];
  /** How many sets of the movement are still to come. */
  toCome: number;
  close: () => void;
  /** Take the set, for the sets to come, too, if `ahead`; null for one that was not done. */
  put: (set: CoreSet | null, ahead: boolean) => void;
  /** As it was when the sheet was opened. */
  back: () => void;
}

const RPES = [6, 7, 7.5, 8, 8.5, 9, 9.5, 10];
const SIDES = ["both", "each", "alternating", "left", "right"] as const;

/** What was otherwise in a set: a tap opens it, and each choice is one more; nothing is to be confirmed. */
export function SetSheet({ run, set, isDone, movements, names, toCome, close, put, back }: Props) {
  const hand = useSetInHand({ set, movements, names, isDone, toCome, put });
  const { now, movement, ahead } = hand;
  return (
    <DialogSheet
      open
      close={close}
      title={`${run.name}: ${isDone ? "correct the set done, " : ""}${now.exercise ?? "the set"}`}
      wide
    >
      <div className="grid gap-x-8 gap-y-3 md:grid-cols-2">
        <What hand={hand} />
        {hand.doubt && <Doubtful hand={hand} asked={hand.doubt} />}
        {movement && (
          <Row label="Level">
            <Tap on={false} off={!movement.easier} act={() => hand.swap(movement.easier ?? "")}>
              easier
            </Tap>
            <Tap on={false} off={!movement.harder} act={() => hand.swap(movement.harder ?? "")}>
              harder
            </Tap>
          </Row>
        )}
        <label className="block">
          <span className="text-sm text-ink-2">Instead, by name</span>
          <input
            list="floor-movements"
            className="field h-11 w-full text-lg"
            placeholder={now.exercise ?? ""}
            onChange={(event) => hand.swap(event.target.value)}
          />
          <datalist id="floor-movements">
            {names.map((one) => (
              <option key={one} value={one} />
            ))}
          </datalist>
        </label>
      </div>
      {movement && movement.instead.length > 0 && (
        <Row label="Instead">
          {movement.instead.slice(0, 8).map((one) => (
            <Tap key={one} on={false} act={() => hand.swap(one)}>
              {one}
            </Tap>
          ))}
        </Row>
      )}
      <Said hand={hand} run={run} />
      {toCome > 0 && !now.loads && (
        <label className="mt-3 inline-flex min-h-11 items-center gap-3 text-lg">
          <input
            type="checkbox"
            className="size-5 accent-ink"
            checked={ahead}
            onChange={(event) => hand.take(now, event.target.checked)}
          />
          {toCome === 1 ? "Also in the set to come" : `Also in the ${toCome} sets to come`}
        </label>
      )}
      <Ways close={close} put={put} back={back} />
    </DialogSheet>
  );
}

/** Its reps or its seconds, and of a timed set how many reps were in it. */
function Dose({ hand: { now, change } }: { hand: SetInHand }) {
  const isTimed = now.seconds != null;
  return (
    <>
      {isTimed && (
        <Count
          label="Seconds"
          value={now.seconds ?? 0}
          put={(seconds) => change({ seconds })}
          step={5}
          whole
        />
      )}
      <Count
        label={isTimed ? "Reps in that time" : "Reps"}
        value={now.reps ?? 0}
        put={(reps) => change({ reps: isTimed && reps === 0 ? null : reps })}
        step={1}
        whole
      />
    </>
  );
}

interface PiecesProps {
  hand: SetInHand;
  pieces: Piece[];
}

/** A set whose load was changed in the middle: how much of it with which. */
function Pieces({ hand, pieces }: PiecesProps) {
  return (
    <>
      {pieces.map((piece, at) => {
        const place = at === 0 ? "First" : "Then";
        const amounts = (["reps", "seconds"] as const).filter((key) => piece[key] != null);
        return (
          // Pieces are told apart by their order alone.
          <div key={at} className="grid gap-2">
            {amounts.map((key) => (
              <Count
                key={key}
                label={`${place}: ${key}`}
                value={piece[key] ?? 0}
                put={(value) => hand.putPiece(at, { [key]: value })}
                step={key === "seconds" ? 5 : 1}
                whole
              />
            ))}
            <Count
              label={`${place}: load${piece.implements > 1 ? `, ${piece.implements} ×` : ""}, ${weightUnit()}`}
              value={typedWeight(piece.load_kg)}
              put={(value) => hand.putPieceLoad(at, keptWeight(value), weightUnit())}
              less={() => hand.putPieceLoad(at, hand.next(piece.load_kg, -1))}
              more={() => hand.putPieceLoad(at, hand.next(piece.load_kg, 1))}
            />
          </div>
        );
      })}
      <button type="button" className="key-button h-11 self-end text-lg" onClick={hand.join}>
        Same load throughout
      </button>
    </>
  );
}

/** How much of it, how heavy, how hard, and on which side. */
function What({ hand }: { hand: SetInHand }) {
  const { now, change, load, helped } = hand;
  return (
    <>
      {now.loads ? (
        <Pieces hand={hand} pieces={now.loads} />
      ) : (
        <>
          <Dose hand={hand} />
          <Count
            label={`${helped ? "Help" : "Load"}${(now.implements ?? 1) > 1 ? `, ${now.implements} ×` : ""}, ${weightUnit()}`}
            value={typedWeight(load)}
            put={(value) => hand.putLoad(keptWeight(value), weightUnit())}
            less={() => hand.step(-1)}
            more={() => hand.step(1)}
          />
          {canSplit(now) && (
            <button
              type="button"
              className="key-button h-11 self-end text-lg"
              onClick={hand.divide}
            >
              Load changed mid-set
            </button>
          )}
        </>
      )}
      <Row label="Exertion">
        {RPES.map((rpe) => (
          <Tap
            key={rpe}
            on={now.rpe === rpe}
            act={() => change({ rpe: now.rpe === rpe ? null : rpe })}
          >
            {rpe}
          </Tap>
        ))}
      </Row>
      <Row label="Side">
        {SIDES.map((sides) => (
          <Tap key={sides} on={(now.sides ?? "both") === sides} act={() => change({ sides })}>
            {sides}
          </Tap>
        ))}
      </Row>
      {!now.loads && (helped || hand.movement?.can_be_helped !== false) && (
        <Row label="What it does">
          <Tap on={!helped} act={() => hand.help(false)}>
            adds weight
          </Tap>
          <Tap on={helped} act={() => hand.help(true)}>
            helps
          </Tap>
        </Row>
      )}
    </>
  );
}

/** A set beyond what is likely: it is kept as it is, and asked about; a digit less may be meant. */
function Doubtful({ hand, asked }: { hand: SetInHand; asked: Beyond }) {
  const { now } = hand;
  const fewer =
    asked.of === "reps"
      ? { reps: Math.round((now.reps ?? 0) / 10) }
      : { load_kg: Math.round((now.load_kg ?? 0) * 10) / 100 };
  const likely = beyond({ ...now, ...fewer }, hand.movement?.bounds) === null;
  return (
    <p role="status" className="border-l-4 border-caution pl-3 text-lg md:col-span-2">
      {asked.says}{" "}
      {likely && (
        <button type="button" className="key-button h-11 px-4" onClick={() => hand.change(fewer)}>
          {fewer.reps === undefined ? weight(fewer.load_kg) : `${fewer.reps} reps`}
        </button>
      )}
    </p>
  );
}

interface WaysProps {
  close: () => void;
  put: Props["put"];
  back: () => void;
}

/** The ways out of the sheet. */
function Ways({ close, put, back }: WaysProps) {
  return (
    <div className="sticky -bottom-4 -mx-7 mt-2 -mb-5 flex gap-3 bg-sheet px-7 pt-2 pb-5 max-md:border-t max-md:border-hair">
      <button
        type="button"
        className="ink-button h-12 px-4 text-lg whitespace-nowrap md:px-8"
        onClick={close}
      >
        Close
      </button>
      <button
        type="button"
        className="key-button h-12 px-3 text-lg whitespace-nowrap md:px-6"
        onClick={() => {
          put(null, false);
          close();
        }}
      >
        Not done
      </button>
      <button
        type="button"
        className="key-button ml-auto h-12 px-3 text-lg whitespace-nowrap md:px-6"
        onClick={() => {
          back();
          close();
        }}
      >
        As before
      </button>
    </div>
  );
}
