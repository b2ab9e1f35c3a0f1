import type { Basis, Schemas } from "@/api/client";
import { type WeekPlace } from "@/api/place";
import { useTrail } from "@/api/sheet";
import { KEYS } from "@/frame/keys";
import { WeekColumns } from "@/marks/WeekColumns";
import { BASIS_WORDS, amount, day, measureTitle, unit, weekName } from "@/words";
import type { OpenTrail } from "./open";

interface Props {
  place: WeekPlace;
  open: OpenTrail;
  close: () => void;
  openFigure: (figure: string, of: Basis) => void;
}

/** The sets behind the open figures; it stays while one walks on. */
export function Trail({ place, open, close, openFigure }: Props) {
  return (
    <section
      aria-label="Trail"
      className="flex min-h-0 flex-1 basis-1/2 flex-col border-t-3 border-double border-rule bg-sheet print:hidden"
    >
      <div className="min-h-0 flex-1 overflow-auto">
        {open.figures.map((figure, at) => (
          <One
            key={figure}
            figure={figure}
            place={place}
            open={open}
            openFigure={openFigure}
            close={at === 0 ? close : null}
          />
        ))}
      </div>
    </section>
  );
}

function One({
  figure,
  place,
  open,
  openFigure,
  close,
}: Omit<Props, "close"> & { figure: string; close: (() => void) | null }) {
  const trail = useTrail(place, open.basis, figure, open.days);
  if (trail.error)
    return (
      <p role="alert" className="px-4 py-3 text-high">
        {trail.error.message}
      </p>
    );
  const data = trail.data;
  if (!data) return <p className="px-4 py-3 text-ink-2">Loading the sets…</p>;
  const { measure } = data;
  const other: Basis = open.basis === "planned" ? "completed" : "planned";
  return (
    <div className="pb-4">
      <div className="sticky top-0 flex items-baseline gap-2 border-b border-rule bg-sheet px-4 pt-2.5 pb-1">
        <h2 className="font-semibold">
          {data.label}, {measureTitle(measure)}
        </h2>
        <span className="text-sm text-ink-2">{BASIS_WORDS[open.basis]}</span>
        <span className="ml-auto font-semibold whitespace-nowrap">
          {amount(data.value, measure)} {unit(measure)}
        </span>
        {close && (
          <button
            type="button"
            onClick={close}
            className="px-1.5 hover:bg-band"
            aria-label="Close the trail"
            title={`Key ${KEYS.closeTrail.key}`}
          >
            ×
          </button>
        )}
      </div>
      <div className="flex items-end gap-3 px-4 pt-2 text-xs text-ink-2">
        <WeekColumns columns={data.history} label={historyLabel(data)} column={16} height={34} />
        <span>
          {weekName(data.history[0]?.week ?? "")} to{" "}
          {weekName(data.history.at(-1)?.week ?? "").replace("Week ", "")}
          <button
            type="button"
            className="trail-link ml-3"
            onClick={() => openFigure(figure, other)}
          >
            as {BASIS_WORDS[other]}
          </button>
        </span>
      </div>
      <table className="mt-1 w-full text-sm">
        <tbody>
          {data.sets.map((one, at) => (
            <tr
              key={`${one.date}/${one.title}/${one.position}`}
              className={`align-bottom ${follows(data.sets, at) ? "" : "border-t border-hair"}`}
            >
              <td className="w-28 py-0.5 pl-4 align-top whitespace-nowrap text-ink-2">
                {data.sets[at - 1]?.date === one.date ? "" : day(one.date).replace(",", "")}
              </td>
              <td className="py-0.5 pr-2">
                {!follows(data.sets, at) && (
                  <span className="block leading-snug">{one.movement}</span>
                )}
                <span className="text-ink-2">{one.text}: </span>
                <span className={one.estimated || one.assumed ? "italic" : ""}>
                  {one.explained}
                  {marks(one)}
                </span>
              </td>
              <td className={`figure w-16 py-0.5 pr-4 ${one.estimated ? "italic" : ""}`}>
                {amount(one.credit, measure)}
              </td>
            </tr>
          ))}
        </tbody>
        {data.is_sum && data.sets.length > 0 && (
          <tfoot>
            <tr>
              <td />
              <td className="py-1 text-ink-2">
                {data.sets.length} set{data.sets.length === 1 ? "" : "s"} behind it
              </td>
              <td className="figure py-1 pr-4">
                <span className="double-rule font-semibold">{amount(data.value, measure)}</span>
              </td>
            </tr>
          </tfoot>
        )}
      </table>
      {data.sets.length === 0 && (
        <p className="px-4 py-3 text-sm text-ink-2">No set of this week is behind it.</p>
      )}
    </div>
  );
}

/** Whether a set repeats the movement of the one above it. */
function follows(sets: Schemas["TrailSet"][], at: number): boolean {
  const [before, one] = [sets[at - 1], sets[at]];
  return before !== undefined && before.date === one?.date && before.movement === one.movement;
}

function marks(one: Schemas["TrailSet"]): string {
  const words = [
    one.estimated && "reps estimated",
    one.assumed && "tempo assumed",
    one.easy && "easy set",
    one.measured && "tension measured",
  ].filter(Boolean);
  return words.length ? ` (${words.join(", ")})` : "";
}

function historyLabel(data: Schemas["Trail"]): string {
  return `${data.label}, ${measureTitle(data.measure)} of eight weeks: ${data.history
    .map((one) => `${weekName(one.week)} ${amount(one.done, data.measure)}`)
    .join(", ")}`;
}
