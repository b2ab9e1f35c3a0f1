import type { Schemas } from "@/api/client";
import { useSince } from "@/api/block";
import type { WeekPlace } from "@/api/place";
import { reportPath } from "@/api/sheet";
import { DialogSheet } from "@/frame/DialogSheet";
import { amount, count, date, measureTitle, percent, unit, weekName } from "@/words";

interface Props {
  place: WeekPlace;
  open: boolean;
  close: () => void;
}

/** What changed since the last block: plan, loads, sets by muscle, findings, decisions. */
export function SinceDialog({ place, open, close }: Props) {
  const found = useSince(place, open);
  const data = found.data;
  return (
    <DialogSheet open={open} close={close} title="Since the last block" wide>
      {found.error && (
        <p role="alert" className="border-l-4 border-high pl-3">
          {found.error.message}
        </p>
      )}
      {!data && !found.error && <p className="text-ink-2">Laying the weeks side by side…</p>}
      {data && <Found data={data} />}
      <p className="mt-4 flex items-baseline gap-5">
        <button type="button" className="key-button" onClick={close}>
          Close
        </button>
        <a className="trail-link" href={reportPath(place, "since", "coach")} target="_blank">
          Print it
        </a>
      </p>
    </DialogSheet>
  );
}

const spanText = (span: Schemas["SpanOut"]) =>
  `${span.title} (${count(span.weeks, "week")} from ${weekName(span.first_week).toLowerCase()} on)`;

/** A figure with its unit, where that is not what the row is called. */
function told(value: number | null, measure: string): string {
  if (value === null) return "–";
  const of = unit(measure);
  return of === measureTitle(measure) ? amount(value, measure) : `${amount(value, measure)} ${of}`;
}

function Found({ data }: { data: Schemas["SinceOut"] }) {
  return (
    <div className="max-h-[60vh] overflow-auto text-sm">
      <p className="pb-2 text-ink-2">
        {spanText(data.after)} compared with {spanText(data.before)}.
        {data.planned > 0 && ` Weeks that lie ahead count as planned (${data.planned}).`}
      </p>
      <div className="grid gap-x-8 gap-y-4 md:grid-cols-2">
        <div className="space-y-4">
          <Means title="An average week" rows={data.measures} />
          <Lines title="New findings" lines={data.came} none="None." />
          <Lines title="Findings that are gone" lines={data.went} none="None." />
          {data.stayed.length > 0 && <Lines title="Still there" lines={data.stayed} none="" />}
        </div>
        <div className="space-y-4">
          <Means title="Muscles whose weekly sets changed" rows={data.muscles} />
        </div>
      </div>
      <div className="mt-4">
        <Lines
          title="Movements, the final week of each"
          lines={data.changes}
          none="The same movements, sets and loads."
          wide
        />
      </div>
      <h3 className="mt-4 border-b border-rule font-semibold">Decided</h3>
      {data.decided.length === 0 && (
        <p className="pt-1 text-ink-2">Nothing was accepted, decided or signed.</p>
      )}
      <ul>
        {data.decided.map((one) => (
          <li key={`${one.day} ${one.what}`} className="border-b border-hair py-1">
            <span className="text-ink-2">
              {date(one.day)}
              {one.who && `, ${one.who}`}
            </span>{" "}
            {one.what}. {one.reason && <em>{one.reason}</em>}
          </li>
        ))}
      </ul>
    </div>
  );
}

function Means({ title, rows }: { title: string; rows: Schemas["MeanOut"][] }) {
  return (
    <section>
      <table className="w-full">
        <thead>
          <tr className="border-b border-rule text-right text-ink-2 italic">
            <th scope="col" className="text-left font-semibold text-ink not-italic">
              {title}
            </th>
            <th scope="col" className="font-normal">
              before
            </th>
            <th scope="col" className="font-normal">
              now
            </th>
            <th scope="col" className="w-20 font-normal">
              change
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map((one) => (
            <tr key={one.name} className="border-b border-hair text-right tabular-nums">
              <th scope="row" className="text-left font-normal">
                {one.name}
              </th>
              <td className="pl-3 text-ink-2">{told(one.before, one.measure)}</td>
              <td className="pl-3">{told(one.after, one.measure)}</td>
              <td>{one.change === null ? "–" : percent(one.change)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length === 0 && <p className="pt-1 text-ink-2">None by half a set or more.</p>}
    </section>
  );
}

interface LinesProps {
  title: string;
  lines: string[];
  none: string;
  wide?: boolean;
}

function Lines({ title, lines, none, wide = false }: LinesProps) {
  return (
    <section>
      <h3 className="border-b border-rule font-semibold">{title}</h3>
      {lines.length === 0 && <p className="pt-1 text-ink-2">{none}</p>}
      <ul className={wide ? "gap-x-8 md:columns-2" : ""}>
        {lines.map((one) => (
          <li key={one} className="break-inside-avoid border-b border-hair py-0.5">
            {one}
          </li>
        ))}
      </ul>
    </section>
  );
}
