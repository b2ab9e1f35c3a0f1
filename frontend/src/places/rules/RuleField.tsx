import { useState } from "react";
import type { Schemas } from "@/api/client";
import { isTable } from "./choices";

export type Row = [number, number] | number | null;
export type Value = string | number | boolean | null | [number, number] | Record<string, Row>;

interface Props {
  rule: Schemas["RuleOut"];
  value: Value;
  /** The value that holds where nothing is chosen, and its name. */
  under: Value;
  underName: string;
  choose: (value: Value) => void;
}

/** One rule: its question, its values, what it changes and where its default comes from. */
export function RuleField({ rule, value, under, underName, choose }: Props) {
  const [open, setOpen] = useState(false);
  const own = JSON.stringify(value) !== JSON.stringify(under);
  return (
    <div className="border-b border-hair py-2.5">
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,21rem)] items-start gap-x-6 max-md:grid-cols-1">
        <div>
          <h3 className="font-semibold">
            {rule.title}
            {own && (
              <button
                type="button"
                className="trail-link ml-3 text-sm font-normal text-ink-2"
                onClick={() => choose(under)}
              >
                back to the {underName}
              </button>
            )}
          </h3>
          <p className="text-sm">{rule.argument}</p>
          <p className="text-sm text-ink-2">
            Changes {rule.changes}. <span className="italic">{rule.source}.</span>
          </p>
        </div>
        <div className="pt-0.5 text-sm">
          {isTable(value) ? (
            <button
              type="button"
              className="key-button"
              aria-expanded={open}
              onClick={() => setOpen(!open)}
            >
              {open
                ? "Close the table"
                : `${Object.keys(value).length} ${rule.rows.length ? "limits" : "bands"}${own ? ", some your own" : ""}`}
            </button>
          ) : rule.choices.length > 0 ? (
            <Choices
              rule={rule}
              value={value}
              under={under}
              underName={underName}
              choose={choose}
            />
          ) : (
            <>
              {rule.optional && (
                <label className="flex min-h-6 items-center gap-2">
                  <input
                    type="checkbox"
                    checked={value !== null}
                    className="accent-ink"
                    onChange={(event) =>
                      choose(event.target.checked ? (rule.begin as Value) : null)
                    }
                  />
                  {value === null ? "not judged" : "judged"}
                </label>
              )}
              {value !== null && <Amount rule={rule} value={value} choose={choose} />}
            </>
          )}
        </div>
      </div>
      {open && isTable(value) && isTable(under) && (
        <dl className={`mt-2 grid gap-x-8 text-sm ${rule.rows.length ? "" : "grid-cols-2"}`}>
          {Object.entries(value).map(([key, band]) => (
            <div key={key} className="flex items-baseline border-b border-hair py-0.5">
              <dt
                className={`flex-1 ${JSON.stringify(band) === JSON.stringify(under[key]) ? "" : "font-semibold"}`}
              >
                {titleOf(rule, key)}
              </dt>
              <dd>
                {Array.isArray(band) ? (
                  <Pair
                    label={titleOf(rule, key)}
                    value={band}
                    percent={rule.unit.startsWith("share")}
                    choose={(next) => choose({ ...value, [key]: next })}
                  />
                ) : (
                  <Threshold
                    row={rule.rows.find((one) => one.key === key)}
                    value={band}
                    usual={(rule.default as Record<string, Row>)[key] as number}
                    choose={(next) => choose({ ...value, [key]: next })}
                  />
                )}
              </dd>
            </div>
          ))}
        </dl>
      )}
    </div>
  );
}

const titleOf = (rule: Props["rule"], key: string): string =>
  rule.rows.find((one) => one.key === key)?.title ?? key.replaceAll("_", " ");

/** A threshold that can be switched off. */
function Threshold({
  row,
  value,
  usual,
  choose,
}: {
  row: Schemas["RuleRow"] | undefined;
  value: number | null;
  usual: number;
  choose: (value: number | null) => void;
}) {
  const title = row?.title ?? "";
  return (
    <span className="inline-flex flex-wrap items-baseline gap-2">
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          className="accent-ink"
          aria-label={`${title}: watched`}
          checked={value !== null}
          onChange={(event) => choose(event.target.checked ? usual : null)}
        />
        {value === null ? "not watched" : "from"}
      </label>
      {value !== null && (
        <>
          <NumberField label={title} value={value} choose={choose} />
          <span className="w-64 text-ink-2">{row?.unit}</span>
        </>
      )}
    </span>
  );
}

/** One number, or two limits, with the unit. */
function Amount({ rule, value, choose }: Pick<Props, "rule" | "value" | "choose">) {
  if (Array.isArray(value))
    return (
      <Pair
        label={rule.title}
        value={value}
        choose={choose}
        percent={rule.unit.startsWith("share")}
      />
    );
  return (
    <span className="flex items-baseline gap-2">
      <NumberField label={rule.title} value={Number(value)} choose={choose} />
      <span className="text-ink-2">{rule.unit}</span>
    </span>
  );
}

function Choices({ rule, value, under, underName, choose }: Props) {
  return (
    <fieldset>
      <legend className="sr-only">{rule.title}</legend>
      {rule.choices.map((choice) => (
        <label key={String(choice.value)} className="flex min-h-6 items-center gap-2">
          <input
            type="radio"
            name={rule.name}
            checked={choice.value === value}
            className="accent-ink"
            onChange={() => choose(choice.value as Value)}
          />
          {choice.meaning}
          {choice.value === under && <span className="text-ink-2 italic">{underName}</span>}
        </label>
      ))}
      {rule.choices.every((choice) => choice.value !== value) && (
        <p className="text-ink-2">Another value is in force: {String(value)}</p>
      )}
    </fieldset>
  );
}

function Pair({
  label,
  value,
  choose,
  percent,
}: {
  label: string;
  value: [number, number];
  choose: (value: [number, number]) => void;
  percent: boolean;
}) {
  const factor = percent ? 100 : 1;
  const names = percent ? ["caution above", "high above"] : ["from", "to"];
  const put = (at: 0 | 1, next: number) => {
    const scaled = Math.round((next / factor) * 1e6) / 1e6;
    choose(at === 0 ? [scaled, value[1]] : [value[0], scaled]);
  };
  return (
    <span className="inline-flex items-baseline gap-1">
      <NumberField
        label={`${label}, ${names[0]}`}
        value={value[0] * factor}
        choose={(next) => put(0, next)}
      />
      <span className="text-ink-2">{percent ? "% /" : "to"}</span>
      <NumberField
        label={`${label}, ${names[1]}`}
        value={value[1] * factor}
        choose={(next) => put(1, next)}
      />
      {percent && <span className="text-ink-2">%</span>}
    </span>
  );
}

/** A number that is taken as soon as it is one; what was typed stays while it is not. */
function NumberField({
  label,
  value,
  choose,
}: {
  label: string;
  value: number;
  choose: (value: number) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const shown = String(Math.round(value * 1e6) / 1e6);
  const wrong =
    typed !== null && (typed.trim() === "" || !Number.isFinite(Number(typed.replace(",", "."))));
  return (
    <input
      value={typed ?? shown}
      aria-label={label}
      inputMode="decimal"
      aria-invalid={wrong || undefined}
      onChange={(event) => {
        setTyped(event.target.value);
        const next = Number(event.target.value.replace(",", "."));
        if (event.target.value.trim() !== "" && Number.isFinite(next)) choose(next);
      }}
      onBlur={() => setTyped(null)}
      className="field w-16 py-0.5 text-right aria-invalid:border-high"
    />
  );
}
