import type { Dto } from "../../api/client";
import { count } from "../../ui/numbers";

const width = 400;
const height = 44;

/** The years of what a work cites (left, past) and of what cites it (right, future) on one axis of time, the work at its own year. */
export function CitationBars({ work }: { work: Dto<"WorkDto"> }) {
  if (work.ties.length === 0)
    return <p className="my-3 text-[12.5px] text-quiet">No citation to or from this work is known here.</p>;
  const years = work.ties.map((t) => t.year);
  const first = Math.min(...years, work.year ?? 9999) - 1;
  const last = Math.max(...years, work.year ?? 0, first + 12);
  const slot = width / (last - first + 1);
  const x = (year: number) => (year - first) * slot;
  const most = Math.max(...work.ties.map((t) => Math.max(t.cites, t.citedBy)));
  const bar = (n: number) => (n === 0 ? 0 : 2 + ((height - 4) * n) / most);
  const decades = Array.from(
    { length: Math.floor(last / 10) - Math.floor(first / 10) },
    (_, i) => (Math.floor(first / 10) + 1 + i) * 10,
  ).filter((d) => last - first < 60 || d % 20 === 0);
  return (
    <figure className="my-3" aria-label={`It cites ${work.citesCount} works here and is cited by ${work.citedCount}`}>
      <figcaption className="flex justify-between text-[12px] font-semibold">
        <span className="text-past">{count(work.citesCount)} it cites</span>
        <span className="text-futuretext">
          {count(work.citedCount)} {work.citedCount === 1 ? "cites" : "cite"} it
        </span>
      </figcaption>
      <svg viewBox={`0 0 ${width} ${height + 16}`} className="w-full" aria-hidden="true">
        {work.ties.map((t) => (
          <g key={t.year}>
            <rect
              x={x(t.year)}
              width={Math.max(1.5, slot * 0.72)}
              y={height - bar(t.cites)}
              height={bar(t.cites)}
              fill="var(--past)"
              opacity=".85"
            >
              <title>{`${t.year}: cites ${t.cites}`}</title>
            </rect>
            <rect
              x={x(t.year) + (t.cites > 0 ? slot * 0.36 : 0)}
              width={Math.max(1.5, slot * (t.cites > 0 ? 0.36 : 0.72))}
              y={height - bar(t.citedBy)}
              height={bar(t.citedBy)}
              fill="var(--future)"
              opacity=".9"
            >
              <title>{`${t.year}: cited by ${t.citedBy}`}</title>
            </rect>
          </g>
        ))}
        <line x1="0" x2={width} y1={height + 0.5} y2={height + 0.5} stroke="var(--line)" />
        {work.year !== null && (
          <path d={`M${x(work.year) + slot / 2} ${height - 4.5}l4.5 4.5l-4.5 4.5l-4.5 -4.5z`} fill="var(--kept)" />
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
    </figure>
  );
}
