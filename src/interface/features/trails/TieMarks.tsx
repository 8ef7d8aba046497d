import { count } from "../../ui/numbers";

const mostMarks = 5;

/** A seed's number, as it stands at the seed and at all that is tied to it. */
export function SeedMark({ n, tied = true }: { n: number; tied?: boolean }) {
  return (
    <span
      className={`grid h-[15px] min-w-[15px] place-items-center rounded-[3px] px-[3px] text-[10.5px] leading-none
        font-bold ${tied ? "bg-pine text-onpine" : "border border-dashed border-edge/60 font-normal text-faint"}`}
    >
      {n}
    </span>
  );
}

/** Which seeds a work is tied to: a mark for each of a few seeds, those it is not tied to left open; for many seeds how many. */
export function TieMarks({ numbers, ties, seeds }: { numbers: readonly number[]; ties: number; seeds: number }) {
  if (seeds === 1) return null;
  if (seeds > mostMarks)
    return (
      <span
        className="text-[12px] whitespace-nowrap"
        title={`seeds ${numbers.join(", ")}${ties > numbers.length ? " …" : ""}`}
      >
        <b className="font-bold">{count(ties)}</b> <span className="text-quiet">{ties === 1 ? "seed" : "seeds"}</span>
      </span>
    );
  return (
    <span className="flex gap-[2px]" role="img" aria-label={`tied to ${numbers.map((n) => `seed ${n}`).join(", ")}`}>
      {Array.from({ length: seeds }, (_, i) => (
        <SeedMark key={i} n={i + 1} tied={numbers.includes(i + 1)} />
      ))}
    </span>
  );
}
