import type { Dto } from "../api/client";

const fields = [
  ["title", "t"],
  ["keywords", "k"],
  ["abstract", "a"],
] as const;

/** A field that terms stand in. */
export type HitField = (typeof fields)[number][0];

/**
 * In which fields the terms stand, and how often: one cell a field, up to three strokes in it. A click on a cell goes
 * there; by key the pane is a Tab away.
 */
export function HitStrip({ hits, onGo }: { hits: Dto<"HitsDto">; onGo?: (field: HitField) => void }) {
  const words = fields.map(([f]) => `${f} ${hits[f]}`).join(", ");
  return (
    <svg width="48" height="14" role="img" aria-label={`terms found in: ${words}`}>
      <title>{words}</title>
      {fields.map(([f], i) => (
        <g
          key={f}
          transform={`translate(${i * 16} 0)`}
          className={onGo && hits[f] > 0 ? "cursor-pointer" : undefined}
          onClick={(e) => {
            if (!onGo || hits[f] === 0) return;
            e.stopPropagation();
            onGo(f);
          }}
        >
          <rect width="14" height="14" rx="2.5" fill={hits[f] > 0 ? "var(--mist)" : "var(--soft)"} />
          {Array.from({ length: Math.min(3, hits[f]) }, (_, n) => (
            <rect key={n} x="3" y={10 - n * 3.6} width="8" height="2" rx="1" fill="var(--pine)" />
          ))}
        </g>
      ))}
    </svg>
  );
}
