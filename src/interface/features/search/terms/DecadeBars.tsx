import { percent } from "../../../ui/numbers";
import type { SetWords } from "./useSetWords";

/** How wide a decade stands. */
export const decadeWidth = 11;

/** The share of each decade's works that have a term, as bars; the highest is as high as the row allows. */
export function DecadeBars({ by, decades }: { by: readonly number[]; decades: SetWords["decades"] }) {
  const shares = decades.map((d, i) => (d.works === 0 ? 0 : (by[i] ?? 0) / d.works));
  const most = Math.max(...shares, 0.0001);
  const told = decades.map(
    (d, i) => `${d.from}s: ${by[i] ?? 0} of ${d.works}${d.works > 0 ? `, ${percent(shares[i] ?? 0)}` : ""}`,
  );
  return (
    <svg
      width={decades.length * decadeWidth}
      height="18"
      className="shrink-0"
      role="img"
      aria-label={`By decade: ${told.join("; ")}`}
    >
      {shares.map((share, i) => {
        const height = share === 0 ? 1 : 2 + (15 * share) / most;
        return (
          <rect
            key={decades[i]?.from}
            x={i * decadeWidth}
            y={18 - height}
            width={decadeWidth - 2}
            height={height}
            fill={share === 0 ? "var(--line)" : "var(--pine)"}
          >
            <title>{told[i]}</title>
          </rect>
        );
      })}
    </svg>
  );
}
