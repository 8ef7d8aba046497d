import { useRef, useState } from "react";
import type { Dto } from "../../api/client";
import { useSize } from "../../ui/useSize";
import { YearHandles } from "../../ui/YearHandles";
import { count, works } from "../../ui/numbers";
import type { ActOf, StepAct } from "../useSet";
import { Press } from "../../ui/Press";

const tall = 32,
  flat = 30;

/** Works by year; two handles, moved by mouse or arrow keys, narrow to a range. Letting go makes the step. */
export function YearBrush({
  years,
  from,
  to,
  take,
  colour = "var(--pine)",
  label = "Years",
  full = false,
}: {
  years: readonly Dto<"YearCountDto">[];
  from: number | null;
  to: number | null;
  take: (act: StepAct) => void;
  /** What the bars in range are drawn in: pine for a set, indigo for the past, terracotta for the future. */
  colour?: string;
  label?: string;
  /** Whether it takes the whole width of what it stands in. */
  full?: boolean;
}) {
  const box = useRef<HTMLDivElement>(null);
  const size = useSize(box, full);
  const width = (full ? size?.width : null) ?? (window.innerWidth < 1150 ? 112 : 176);
  const height = full ? tall : flat;
  const first = years[0]?.year ?? 2000;
  const last = years.at(-1)?.year ?? 2001;
  const low = Math.max(first, from ?? first);
  const high = Math.min(last, to ?? last);
  const [range, setRange] = useState<[number, number]>([Math.min(low, high), Math.max(low, high)]);
  if (years.length < 2)
    return (
      <p className="shrink-0 text-[12px] text-quiet">
        {years.length === 1 ? `all from ${first}` : "no years"}
        {(from !== null || to !== null) && (
          <Press className="ml-2 underline" onClick={() => take({ kind: "Years", from: null, to: null })}>
            any year
          </Press>
        )}
      </p>
    );
  const most = Math.max(1, ...years.map((y) => y.before));
  const slot = width / years.length;
  const commit = ([a, b]: [number, number]) => {
    const act: ActOf<"Years"> = { kind: "Years", from: a === first ? null : a, to: b === last ? null : b };
    if (act.from !== (from ?? null) || act.to !== (to ?? null)) take(act);
  };
  const inRange = years.filter((y) => y.year >= range[0] && y.year <= range[1]).reduce((sum, y) => sum + y.before, 0);
  return (
    <div ref={box} className={full ? "shrink-0" : "flex shrink-0 items-center gap-2"}>
      {!full && <Year year={range[0]} narrowed={range[0] !== first} />}
      <div
        className="relative"
        style={full ? { height } : { height, width }}
        title={full ? undefined : `${works(inRange)} from ${range[0]} to ${range[1]}`}
      >
        <svg width={width} height={height} aria-hidden="true" className="absolute inset-0">
          <rect
            x={(range[0] - first) * slot}
            width={(range[1] - range[0] + 1) * slot}
            height={height}
            fill="var(--soft)"
          />
          {years.map((y) => {
            const h = y.before === 0 ? 0 : Math.max(1.5, ((height - 4) * y.before) / most);
            const inside = y.year >= range[0] && y.year <= range[1];
            return (
              <rect
                key={y.year}
                x={(y.year - first) * slot}
                width={Math.max(1, slot - 1)}
                y={height - h}
                height={h}
                fill={inside ? colour : "var(--edge)"}
                opacity={inside ? 1 : 0.55}
              />
            );
          })}
        </svg>
        <YearHandles
          first={first}
          last={last}
          range={range}
          label={label}
          colour={colour}
          className="absolute inset-0"
          onChange={setRange}
          onCommit={commit}
        />
      </div>
      {full ? (
        <div className="relative h-[17px] text-[11.5px] text-faint">
          <YearLabel
            width={width}
            year={range[0]}
            x={(range[0] - first) * slot}
            narrowed={range[0] !== first}
            align="left"
          />
          <YearLabel
            width={width}
            year={range[1]}
            x={(range[1] - first + 1) * slot}
            narrowed={range[1] !== last}
            align="right"
          />
          {(range[0] !== first || range[1] !== last) && (
            <span
              className="absolute -translate-x-1/2"
              style={{ left: Math.min(width - 60, Math.max(60, ((range[0] + range[1] + 1) / 2 - first) * slot)) }}
            >
              {(range[1] - range[0]) * slot > 120 ? count(inRange) : ""}
            </span>
          )}
        </div>
      ) : (
        <Year year={range[1]} narrowed={range[1] !== last} />
      )}
    </div>
  );
}

/** A year beside the histogram. */
function Year({ year, narrowed }: { year: number; narrowed: boolean }) {
  return <span className={`text-[11.5px] ${narrowed ? "font-semibold text-ink" : "text-faint"}`}>{year}</span>;
}

/** A year under its handle, kept inside the histogram. */
function YearLabel({
  width,
  year,
  x,
  narrowed,
  align,
}: {
  width: number;
  year: number;
  x: number;
  narrowed: boolean;
  align: "left" | "right";
}) {
  const at = align === "left" ? { left: Math.min(x, width - 64) } : { right: Math.min(width - x, width - 64) };
  return (
    <span className={`absolute ${narrowed ? "font-semibold text-ink" : ""}`} style={at}>
      {year}
    </span>
  );
}
