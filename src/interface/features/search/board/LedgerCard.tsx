import { useState } from "react";
import type { Dto } from "../../../api/client";
import { count } from "../../../ui/numbers";
import { isNarrowed, type SetsOfLine } from "../../../set/useOpenSet";
import type { StepAct } from "../../../set/useSet";
import { MissedSheet } from "./MissedSheet";
import { Press } from "../../../ui/Press";
import { TextButton } from "../../../ui/TextButton";

type Line = Dto<"LedgerLineDto">;

const number = "inline-flex h-6 min-w-6 items-center justify-end rounded px-0.5 hover:bg-mist hover:underline";

/** Databases in their order, each extract under what contains it. */
function nested(lines: readonly Line[]): Line[] {
  const isInside = (l: Line) => l.partOf !== null && lines.some((o) => o.databaseId === l.partOf);
  return lines
    .filter((l) => !isInside(l))
    .flatMap((l) => [l, ...lines.filter((o) => isInside(o) && o.partOf === l.databaseId)]);
}

/** Each database with its share: works, what only it has, and all as one. Every number opens its set. */
export function LedgerCard({
  reviewId,
  stepId,
  line,
  ledger,
  state,
  missed,
  take,
  sets,
}: {
  reviewId: number;
  stepId: number;
  line: string;
  missed: number;
  ledger: Dto<"LedgerDto">;
  state: Dto<"SearchStateDto"> | null;
  take: (act: StepAct) => void;
  sets: SetsOfLine;
}) {
  const [missing, setMissing] = useState(false);
  const most = Math.max(1, ...ledger.databases.map((d) => d.works));
  const on = ledger.databases.filter((d) => d.chosen);
  const toggle = (id: number) => {
    const next = on.some((d) => d.databaseId === id)
      ? on.filter((d) => d.databaseId !== id).map((d) => d.databaseId)
      : [...on.map((d) => d.databaseId), id];
    if (next.length > 0) take({ kind: "Databases", databases: next.length === ledger.databases.length ? [] : next });
  };
  const lines = nested(ledger.databases);
  return (
    <div className="w-[248px] shrink-0 overflow-y-auto border-l-2 border-pine pl-3">
      <table className="w-full text-[12px]">
        <caption className="sr-only">{isNarrowed(state) ? "by database, before narrowing" : "by database"}</caption>
        <thead>
          <tr className="text-[11.5px] text-faint">
            <th className="text-left text-[12.5px] font-semibold text-ink">
              {isNarrowed(state) ? "by database, whole" : "by database"}
            </th>
            <th className="text-right font-normal">works</th>
            <th className="text-right font-normal">only here</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((d) => (
            <tr key={d.databaseId} className={d.chosen ? "" : "text-faint"}>
              <td className={`relative h-[25px] ${d.partOf !== null ? "pl-[15px]" : ""}`}>
                <label className="flex h-[24px] items-center gap-1.5">
                  <input
                    type="checkbox"
                    checked={d.chosen}
                    onChange={() => toggle(d.databaseId)}
                    disabled={d.chosen && on.length === 1}
                    className="accent-[var(--pine)]"
                  />
                  <span
                    className={`truncate ${d.chosen ? "" : "line-through"}`}
                    title={d.partOf !== null ? `an extract of ${name(lines, d.partOf)}` : undefined}
                  >
                    {d.name}
                  </span>
                </label>
                <i
                  aria-hidden="true"
                  className="absolute bottom-0 left-0 h-[2.5px] rounded-sm bg-measure"
                  style={{ width: `${(100 * d.works) / most}%` }}
                />
              </td>
              <td className="text-right">
                <Press
                  className={number}
                  onClick={() => sets.inDatabase(d)}
                  aria-label={`Open the ${count(d.works)} works that ${d.name} finds`}
                >
                  {count(d.works)}
                </Press>
              </td>
              <td className="text-right text-quiet">
                {!d.chosen ? (
                  "–"
                ) : d.onlyHere === 0 || on.length === 1 ? (
                  count(d.onlyHere)
                ) : (
                  <Press
                    className={number}
                    onClick={() => sets.onlyIn(d, ledger.databases)}
                    aria-label={`Open the ${count(d.onlyHere)} works that only ${d.name} finds`}
                  >
                    {count(d.onlyHere)}
                  </Press>
                )}
              </td>
            </tr>
          ))}
          <tr className="border-t border-line font-bold">
            <td className="h-[25px]">
              total{" "}
              <span
                className="font-normal text-faint"
                title={`${count(ledger.duplicates)} ${ledger.duplicates === 1 ? "duplicate" : "duplicates"} joined`}
              >
                from {count(ledger.records)} {ledger.records === 1 ? "record" : "records"}
              </span>
            </td>
            <td className="text-right">
              <Press className={number} onClick={sets.whole} aria-label={`Open all ${count(ledger.works)} works`}>
                {count(ledger.works)}
              </Press>
            </td>
            <td />
          </tr>
        </tbody>
      </table>
      {ledger.byTexts !== null && (
        <p
          className="text-[11.5px] text-quiet"
          title="Works that match only by the words of full texts gathered in this review"
        >
          found only in gathered texts <b className="font-semibold text-ink">{count(ledger.byTexts)}</b>
        </p>
      )}
      {missed > 0 && (
        <TextButton onClick={() => setMissing(true)} className="text-[11.5px] text-quiet">
          misses {count(missed)} kept {missed === 1 ? "work" : "works"}
        </TextButton>
      )}
      {missing && (
        <MissedSheet reviewId={reviewId} stepId={stepId} line={line} sets={sets} close={() => setMissing(false)} />
      )}
    </div>
  );
}

function name(lines: readonly Line[], id: number): string {
  return lines.find((l) => l.databaseId === id)?.name ?? "";
}
