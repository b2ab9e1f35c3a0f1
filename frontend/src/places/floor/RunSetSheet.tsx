import { SetSheet } from "./SetSheet";
import { type Editing, type State, type Together, asBefore, changed, toCome, wanted } from "./run";

interface Props {
  data: Together;
  state: State;
  editing: Editing;
  change: (how: (state: State) => State) => void;
  close: () => void;
}

/** The sheet of a set of the run: done, and corrected, or to come, and changed. */
export function RunSetSheet({ data, state, editing, change, close }: Props) {
  const run = data.runs.find((one) => one.athlete === editing.athlete);
  const due = run && wanted(run, state, editing.step);
  if (!run || !due) return null;
  const mine = state.own[editing.athlete]?.done[editing.step];
  return (
    <SetSheet
      key={`${editing.athlete}/${editing.step}`}
      run={run}
      set={mine ?? due.set}
      isDone={mine !== undefined}
      movements={data.movements}
      names={data.names}
      close={close}
      toCome={toCome(run, state, editing.step).length}
      back={() => change((all) => asBefore(all, run, editing))}
      put={(next, further) => {
        const loads = data.movements.find((one) => one.name === next?.exercise)?.loads ?? [];
        change((all) => changed(all, run, editing, next, further, loads));
      }}
    />
  );
}
