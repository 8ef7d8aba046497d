import type { Dto } from "../../../api/client";
import { count } from "../../../ui/numbers";
import type { StepAct } from "../useSearch";

function isNarrowed(state: Dto<"SearchStateDto"> | null): boolean {
  return (
    state !== null &&
    (state.from !== null || state.to !== null || state.narrowings.length > 0 || state.inside.length > 0)
  );
}

/** By the way: kept works that this search would not find. */
function KeptMissed({ missed }: { missed: number }) {
  if (missed === 0) return null;
  return (
    <p className="text-[11.5px] text-quiet" title="The search of this step, before narrowing, does not find them">
      misses {count(missed)} kept {missed === 1 ? "work" : "works"}
    </p>
  );
}

/** Each database with its share: works, what only it has, and all as one. */
export function LedgerCard({
  ledger,
  state,
  missed,
  take,
}: {
  missed: number;
  ledger: Dto<"LedgerDto">;
  state: Dto<"SearchStateDto"> | null;
  take: (act: StepAct) => void;
}) {
  const most = Math.max(1, ...ledger.databases.map((d) => d.works));
  const on = ledger.databases.filter((d) => d.chosen);
  const toggle = (id: number) => {
    const next = on.some((d) => d.databaseId === id)
      ? on.filter((d) => d.databaseId !== id).map((d) => d.databaseId)
      : [...on.map((d) => d.databaseId), id];
    if (next.length > 0) take({ kind: "Databases", databases: next.length === ledger.databases.length ? [] : next });
  };
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
          {ledger.databases.map((d) => (
            <tr key={d.databaseId} className={d.chosen ? "" : "text-faint"}>
              <td className="relative h-[25px]">
                <label className="flex h-[24px] items-center gap-1.5">
                  <input
                    type="checkbox"
                    checked={d.chosen}
                    onChange={() => toggle(d.databaseId)}
                    disabled={d.chosen && on.length === 1}
                    className="accent-[var(--pine)]"
                  />
                  <span className={`truncate ${d.chosen ? "" : "line-through"}`}>{d.name}</span>
                </label>
                <i
                  aria-hidden="true"
                  className="absolute bottom-0 left-0 h-[2.5px] rounded-sm bg-measure"
                  style={{ width: `${(100 * d.works) / most}%` }}
                />
              </td>
              <td className="text-right">{count(d.works)}</td>
              <td className="text-right text-quiet">{d.chosen ? count(d.onlyHere) : "–"}</td>
            </tr>
          ))}
          <tr className="border-t border-line font-bold">
            <td className="h-[20px]">as one</td>
            <td className="text-right">{count(ledger.works)}</td>
            <td />
          </tr>
        </tbody>
      </table>
      <p className="text-[11.5px] text-faint">
        {count(ledger.records)} records, {count(ledger.duplicates)}{" "}
        {ledger.duplicates === 1 ? "duplicate" : "duplicates"} joined
      </p>
      <KeptMissed missed={missed} />
    </div>
  );
}
