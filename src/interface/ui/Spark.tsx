/** Citations per year as small bars, the youngest year at the right. */
export function Spark({ counts, from }: { counts: readonly number[]; from: number }) {
  const most = Math.max(1, ...counts);
  return (
    <svg
      width={counts.length * 4}
      height="15"
      role="img"
      aria-label={`citing works by year since ${from}: ${counts.join(", ")}`}
    >
      {counts.map((n, i) => {
        const h = n === 0 ? 0.8 : 2 + (12 * n) / most;
        return (
          <rect key={i} x={i * 4} y={15 - h} width="3" height={h} fill="var(--future)" opacity={n === 0 ? 0.4 : 0.9} />
        );
      })}
    </svg>
  );
}
