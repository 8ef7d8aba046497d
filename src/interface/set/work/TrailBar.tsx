import { useState } from "react";
import type { Dto } from "../../api/client";
import { YearHandles } from "../../ui/YearHandles";
import { count, works } from "../../ui/numbers";
import type { Follow } from "../useTrail";
import type { TrailWay } from "../useSet";
import { Press } from "../../ui/Press";
import { TextButton } from "../../ui/TextButton";

const width = 400;
const height = 44;

/** A corpus of few years has an axis of so many. */
const leastYears = 12;

type Work = Dto<"WorkDto">;

/**
 * The ties on the axis of time that all works share: what lies before its first year, or behind its last, stands at that
 * end.
 */
function onScale({ ties, scale }: Work): Work["ties"] {
  const by = new Map<number, Work["ties"][number]>();
  for (const t of ties) {
    const year = Math.min(scale.to, Math.max(scale.from, t.year));
    const had = by.get(year) ?? { year, cites: 0, citedBy: 0, kept: 0 };
    by.set(year, {
      year,
      cites: had.cites + t.cites,
      citedBy: had.citedBy + t.citedBy,
      kept: had.kept + t.kept,
    });
  }
  return [...by.values()];
}

/** Which way a stretch of years lies from a work, and how many ties fall into it. */
function stretch(ties: Work["ties"], from: number, to: number): { way: TrailWay; ties: number } {
  let [past, future] = [0, 0];
  for (const t of ties)
    if (t.year >= from && t.year <= to) {
      past += t.cites;
      future += t.citedBy;
    }
  return { way: past > 0 && future > 0 ? "Both" : future > 0 ? "Forward" : "Backward", ties: past + future };
}

/** A stretch of years in words; an end of the axis stands for all that lies beyond it. */
const said = ([from, to]: [number, number], first: number, last: number) =>
  from === first ? `up to ${to}` : to === last ? `from ${from}` : `of ${from}–${to}`;

/**
 * The trail bar: what a work cites (left, past) and what cites it (right, future) on one axis of time, the work at its own year. A
 * stretch that is brushed becomes the set in view; the words over it open a whole side.
 */
export function TrailBar({ work, follow }: { work: Work; follow: Follow }) {
  const first = work.scale.from;
  const last = Math.max(work.scale.to, first + leastYears);
  const ties = onScale(work);
  const [range, setRange] = useState<[number, number]>([first, last]);
  if (work.ties.length === 0)
    return <p className="my-3 text-[12.5px] text-quiet">No citations to or from this work are known.</p>;
  const slot = width / (last - first + 1);
  const x = (year: number) => (year - first) * slot;
  const most = Math.max(...ties.map((t) => Math.max(t.cites, t.citedBy)));
  const bar = (n: number) => (n === 0 ? 0 : 2 + ((height - 8) * n) / most);
  const decades = Array.from(
    { length: Math.floor(last / 10) - Math.floor(first / 10) },
    (_, i) => (Math.floor(first / 10) + 1 + i) * 10,
  ).filter((d) => last - first < 60 || d % 20 === 0);
  const kept = ties.reduce((n, t) => n + t.kept, 0);
  const brushed = range[0] > first || range[1] < last;
  const chosen = stretch(ties, range[0], range[1]);
  const open = (from: number, to: number) => {
    const { way, ties: found } = stretch(ties, from, to);
    // An end of the axis stands for all that lies beyond it.
    if (found > 0)
      follow([work.id], way, { years: { from: from === first ? null : from, to: to === last ? null : to } });
  };
  const dim = (year: number) => (brushed && (year < range[0] || year > range[1]) ? 0.25 : 0.9);
  return (
    <figure
      className="my-3"
      aria-label={
        `It cites ${count(work.citesCount)} works here and is cited by ${count(work.citedCount)}` +
        (kept > 0 ? `; ${count(kept)} of them are kept` : "")
      }
    >
      <figcaption className="flex justify-between text-[12px] font-semibold">
        <Side
          className="text-past"
          n={work.citesCount}
          words="it cites"
          hint="Backward trail ( [ )"
          go={() => follow([work.id], "Backward")}
        />
        <Side
          words="neighbours"
          hint="Works that have much in common with it ( = )"
          go={() => follow([work.id], "Neighbours")}
        />
        <Side
          className="text-futuretext"
          n={work.citedCount}
          words={work.citedCount === 1 ? "cites it" : "cite it"}
          hint="Forward trail ( ] )"
          go={() => follow([work.id], "Forward")}
        />
      </figcaption>
      <div className="relative">
        <svg viewBox={`0 0 ${width} ${height + 16}`} className="block w-full" aria-hidden="true">
          {brushed && <rect x={x(range[0])} width={x(range[1] + 1) - x(range[0])} height={height} fill="var(--soft)" />}
          {ties.map((t) => (
            <g key={t.year} opacity={dim(t.year)}>
              <rect
                x={x(t.year)}
                width={Math.max(1.5, slot * 0.72)}
                y={height - bar(t.cites)}
                height={bar(t.cites)}
                fill="var(--past)"
              />
              <rect
                x={x(t.year) + (t.cites > 0 ? slot * 0.36 : 0)}
                width={Math.max(1.5, slot * (t.cites > 0 ? 0.36 : 0.72))}
                y={height - bar(t.citedBy)}
                height={bar(t.citedBy)}
                fill="var(--future)"
              />
              {t.kept > 0 && (
                <rect
                  data-kept={t.kept}
                  x={x(t.year)}
                  width={Math.max(1.5, slot * 0.72)}
                  y={height - bar(Math.max(t.cites, t.citedBy)) - 4}
                  height={3}
                  fill="var(--kept)"
                />
              )}
            </g>
          ))}
          <line x1="0" x2={width} y1={height + 0.5} y2={height + 0.5} stroke="var(--line)" />
          {work.year !== null && (
            <path
              d={`M${x(Math.min(last, Math.max(first, work.year))) + slot / 2} ${height - 4.5}l4.5 4.5l-4.5 4.5l-4.5 -4.5z`}
              fill="var(--kept)"
            />
          )}
          {decades.map((d) => (
            <text
              key={d}
              x={Math.min(width - 14, Math.max(14, x(d)))}
              y={height + 14}
              fontSize="11.5"
              fill="var(--faint)"
              textAnchor="middle"
            >
              {d}
            </text>
          ))}
        </svg>
        <YearHandles
          first={first}
          last={last}
          range={range}
          label="Years of what it cites and of what cites it"
          names={["First year of the range", "Last year of the range"]}
          colour="var(--quiet)"
          className="absolute inset-x-0 top-0 h-[72%]"
          onChange={setRange}
          onCommit={([from, to], byPointer) => {
            if (byPointer) open(from, to);
          }}
        />
      </div>
      {work.citesByText && (
        <p className="text-[11.5px] text-quiet">What it cites was read from its text; no record lists it.</p>
      )}
      {kept > 0 && !brushed && (
        <p className="text-[11.5px] text-quiet">
          <span aria-hidden="true" className="mr-1 inline-block h-[3px] w-3 bg-kept align-middle" />
          years with {kept === 1 ? "the kept one" : `the ${count(kept)} kept ones`} among them
        </p>
      )}
      {brushed && (
        <p className="flex justify-between text-[12px]">
          <TextButton
            disabled={chosen.ties === 0}
            className="font-semibold disabled:font-normal disabled:no-underline"
            onClick={() => open(range[0], range[1])}
          >
            {chosen.ties === 0 ? "Nothing" : `Open ${works(chosen.ties)}`} {said(range, first, last)}
          </TextButton>
          <TextButton className="text-quiet" onClick={() => setRange([first, last])}>
            all years
          </TextButton>
        </p>
      )}
    </figure>
  );
}

function Side({
  n = null,
  words,
  hint,
  go,
  className = "font-normal text-quiet",
}: {
  /** How many works there are; null where they are not counted before they are asked for. */
  n?: number | null;
  words: string;
  hint: string;
  go: () => void;
  className?: string;
}) {
  return (
    <Press
      disabled={n === 0}
      onClick={go}
      title={hint}
      className={`${className} underline decoration-line underline-offset-2 hover:decoration-current disabled:no-underline`}
    >
      {n === null ? words : `${count(n)} ${words}`}
    </Press>
  );
}
