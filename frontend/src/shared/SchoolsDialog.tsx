import { useState } from "react";
import type { Basis, Schemas } from "@/api/client";
import { type WeekPlace } from "@/api/place";
import { useSchools } from "@/api/sheet";
import { DialogSheet } from "@/frame/DialogSheet";
import { LevelMark } from "@/marks/LevelMark";
import { weekName } from "@/words";

/** What every school would raise of the week, and what only one: a table of findings by schools. */
export function SchoolsDialog({ place, basis }: { place: WeekPlace; basis: Basis }) {
  const [open, setOpen] = useState(false);
  const schools = useSchools(place, basis, open);
  return (
    <>
      <button
        type="button"
        className="no-print trail-link ml-auto text-sm whitespace-nowrap"
        onClick={() => setOpen(true)}
      >
        Schools side by side
      </button>
      <DialogSheet
        open={open}
        close={() => setOpen(false)}
        title={`${weekName(place.week)} under every school`}
        scrolls="Findings by school"
      >
        {schools.error && (
          <p role="alert" className="text-high">
            {schools.error.message}
          </p>
        )}
        {schools.isLoading && <p className="text-ink-2">Counting the week each way…</p>}
        {schools.data && <Table schools={schools.data} />}
      </DialogSheet>
    </>
  );
}

function Table({ schools }: { schools: Schemas["SchoolsOut"] }) {
  if (schools.rows.length === 0) return <p>No school would raise anything above a note.</p>;
  return (
    <table className="w-full">
      <thead>
        <tr className="border-b border-rule text-left align-bottom text-sm text-ink-2 italic">
          <th scope="col" className="pb-1 font-normal">
            Finding
          </th>
          {schools.names.map((name, at) => (
            <th key={name} scope="col" className="w-32 pb-1 font-normal">
              {name}
              <span className="block not-italic">
                {schools.rows.filter((row) => row.levels[at]).length} in all
              </span>
            </th>
          ))}
          <th scope="col" className="w-20 pb-1 font-normal">
            raised by
          </th>
        </tr>
      </thead>
      <tbody>
        {schools.rows.map((row) => {
          const raised = row.levels.filter(Boolean).length;
          return (
            <tr key={`${row.title}/${row.label}`} className="border-b border-hair">
              <th
                scope="row"
                className={`py-1 text-left font-normal ${raised === row.levels.length ? "" : "text-ink-2"}`}
              >
                {row.title}: {row.label}
              </th>
              {row.levels.map((level, at) => (
                <td key={schools.names[at]} className="text-sm">
                  {level && (
                    <span className="flex items-center gap-1.5">
                      <LevelMark level={level} />
                      {level}
                    </span>
                  )}
                </td>
              ))}
              <td className="text-sm text-ink-2">
                {raised === row.levels.length ? "all" : `${raised} of ${row.levels.length}`}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
