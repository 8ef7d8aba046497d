import type { Dto } from "../../api/client";
import { count } from "../../ui/numbers";
import type { StepAct } from "./useSearch";

type Part = Dto<"ReadingPartDto">;

interface Card {
  letter: string;
  head: Part;
  terms: Part[];
}

/** Cards of the reading: a concept with its terms; what stands under NOT; limits by field. */
function cards(parts: readonly Part[]): { concepts: Card[]; without: Part[]; limits: Part[] } {
  const concepts: Card[] = [];
  const without: Part[] = [];
  const limits: Part[] = [];
  let notDepth: number | null = null;
  for (const part of parts) {
    if (notDepth !== null && part.depth <= notDepth) notDepth = null;
    if (part.kind === "not") notDepth ??= part.depth;
    const leaf = part.kind === "term" || part.kind === "phrase";
    if (notDepth !== null) {
      if (leaf) without.push(part);
      continue;
    }
    if (part.concept !== null) {
      let card = concepts.find((c) => c.letter === part.concept);
      if (!card) concepts.push((card = { letter: part.concept, head: part, terms: [] }));
      if (leaf) card.terms.push(part);
    } else if (part.kind === "years" || part.kind === "field") limits.push(part);
  }
  return { concepts, without, limits };
}

/** The board: each concept with its terms, what each finds and what only it brings in; the ledger of databases at the right end. */
export function Board({
  reading,
  state,
  missed,
  late,
  take,
}: {
  reading: Dto<"ReadingDto">;
  state: Dto<"SearchStateDto"> | null;
  missed: number;
  late: boolean;
  take: (act: StepAct) => void;
}) {
  const { concepts, without, limits } = cards(reading.parts);
  return (
    <section
      aria-label="Board"
      className={`flex max-h-[200px] shrink-0 items-stretch gap-2.5 overflow-x-auto px-[18px] pt-0.5 pb-2.5 ${late ? "opacity-60" : ""}`}
    >
      {concepts.map((card, i) => (
        <div key={card.letter} className="flex min-w-0 flex-1 items-stretch gap-2.5" style={{ minWidth: 225 }}>
          {i > 0 && <span className="self-center text-[11.5px] text-quiet">and</span>}
          <ConceptCard card={card} />
        </div>
      ))}
      {(without.length > 0 || limits.length > 0) && (
        <div className="w-[170px] shrink-0 overflow-y-auto rounded-md border border-line bg-raised px-2.5 py-1.5 text-[12.5px]">
          {without.length > 0 && <h3 className="font-semibold text-aside">without</h3>}
          {without.map((p) => (
            <p
              key={p.start}
              className="flex justify-between gap-2 text-aside"
              title={`${count(p.onlyIt ?? 0)} works are left out because of it alone`}
            >
              <s className="truncate">{p.text}</s>
              <span>−{count(p.onlyIt ?? 0)}</span>
            </p>
          ))}
          {limits.map((p) => (
            <p key={p.start} className="flex justify-between gap-2" title={p.meaning}>
              <span className="truncate">{p.text}</span>
              <span className="text-quiet">{count(p.count)}</span>
            </p>
          ))}
        </div>
      )}
      {reading.ledger && <LedgerCard ledger={reading.ledger} state={state} missed={missed} take={take} />}
    </section>
  );
}

function isNarrowed(state: Dto<"SearchStateDto"> | null): boolean {
  return (
    state !== null &&
    (state.from !== null || state.to !== null || state.narrowings.length > 0 || state.inside.length > 0)
  );
}

function ConceptCard({ card }: { card: Card }) {
  const most = Math.max(1, ...card.terms.map((t) => t.count));
  const single = card.terms.length === 1 && card.terms[0] === card.head;
  return (
    <div className="flex min-w-0 flex-1 flex-col overflow-hidden rounded-md border border-line bg-raised px-2.5 py-1.5">
      <h3 className="flex items-baseline gap-2 text-[13px] font-semibold">
        <span className={`concept concept-${card.letter}`}>{card.letter}</span>
        <span className="min-w-0 flex-1 truncate font-normal text-quiet" title={card.head.meaning}>
          {single
            ? card.head.meaning
            : `${card.terms.length} terms, ${card.head.kind === "near" ? "near each other" : card.head.kind === "and" ? "all of them" : "any of them"}`}
        </span>
        <b className="text-[14px] font-bold">{count(card.head.count)}</b>
      </h3>
      <div
        className="grid grid-cols-[minmax(0,1fr)_46px_48px] gap-1.5 text-right text-[11.5px] text-faint"
        aria-hidden="true"
      >
        <span />
        <span>works</span>
        <span>only it</span>
      </div>
      <ul className="min-h-0 flex-1 overflow-y-auto">
        {card.terms.map((t) => (
          <li
            key={t.start}
            className="grid h-[21px] grid-cols-[minmax(0,1fr)_46px_48px] items-center gap-1.5 text-[12.5px]"
            title={t.meaning}
          >
            <span className="relative truncate pb-[3px] leading-[18px]">
              {t.text}
              <i
                aria-hidden="true"
                className="absolute bottom-0 left-0 h-[2.5px] rounded-sm bg-measure"
                style={{ width: `${(100 * t.count) / most}%` }}
              />
            </span>
            <span className="text-right">{count(t.count)}</span>
            <span className="text-right text-quiet">{t.onlyIt === null ? "" : count(t.onlyIt)}</span>
          </li>
        ))}
      </ul>
    </div>
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

function LedgerCard({
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
    <div className="w-[290px] shrink-0 overflow-y-auto border-l-2 border-pine pl-3">
      <table className="w-full text-[12px]">
        <caption className="text-left text-[12.5px] font-semibold">
          {isNarrowed(state) ? "by database, before narrowing" : "by database"}
        </caption>
        <thead>
          <tr className="text-[11.5px] text-faint">
            <th className="text-left font-normal">searched</th>
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
