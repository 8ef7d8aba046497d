import type { Dto } from "../../api/client";
import { Press } from "../../ui/Press";
import { whyNeighbour } from "../../set/neighbourWords";

/** What belongs beside the set, where it would stand: opened like any work, and kept from there. */
export function Suggested({
  suggested,
  left,
  top,
  shift,
  onLook,
  onOpen,
}: {
  suggested: readonly Dto<"SuggestionDto">[];
  left: number;
  top: number;
  /** How far a lane was moved; undefined where it is not drawn. */
  shift: (lane: number) => number | undefined;
  onLook: (s: Dto<"SuggestionDto"> | null) => void;
  onOpen: (id: number) => void;
}) {
  return suggested.map((s) => {
    const by = shift(s.work.lane);
    if (by === undefined) return null;
    const r = Math.max(12, s.work.diameter / 2 + 2);
    return (
      <Press
        key={s.work.id}
        data-suggested={s.work.id}
        className="absolute z-[5] rounded-full"
        style={{ left: left + s.work.x - r, top: top + s.work.y + by - r, width: 2 * r, height: 2 * r }}
        aria-label={`Suggested: ${s.work.name}, ${s.work.title}. ${whyNeighbour(s.inCommon)}`}
        onPointerEnter={() => onLook(s)}
        onPointerLeave={() => onLook(null)}
        onFocus={() => onLook(s)}
        onBlur={() => onLook(null)}
        onClick={() => onOpen(s.work.id)}
      >
        <svg width={2 * r} height={2 * r} aria-hidden="true" className="pointer-events-none block">
          <circle
            cx={r}
            cy={r}
            r={Math.max(4, s.work.diameter / 2 - 1)}
            fill="var(--paper)"
            stroke="var(--ink)"
            strokeWidth={1.5}
            strokeDasharray="2 2"
          />
        </svg>
      </Press>
    );
  });
}
