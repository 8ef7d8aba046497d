import { count } from "../../ui/numbers";
import type { Completion } from "./useCompletions";

const kinds: Record<string, string> = { person: "by", venue: "in", field: "field", keyword: "keyword" };

/** Suggestions to complete the line, as one quiet row under it: ↓ goes into it, ← → along it, Enter takes. */
export function GoesOn({
  list,
  at,
  onTake,
}: {
  list: readonly Completion[];
  at: number;
  onTake: (one: Completion) => void;
}) {
  if (list.length === 0) return null;
  return (
    <div className="flex items-center gap-2 overflow-hidden text-[12.5px] text-quiet">
      <span className="whitespace-nowrap">
        complete <kbd className="rounded border border-line px-1 text-[11.5px]">↓</kbd>
      </span>
      <ul
        role="listbox"
        data-inline
        id="line-goes-on"
        aria-label="Suggestions to complete the line"
        aria-orientation="horizontal"
        className="flex min-w-0 gap-1.5 overflow-hidden"
      >
        {list.map((one, i) => (
          <li
            key={one.text}
            id={`line-goes-on-${i}`}
            role="option"
            aria-selected={i === at}
            // The line keeps the focus.
            onMouseDown={(e) => e.preventDefault()}
            onClick={() => onTake(one)}
            className={`cursor-pointer rounded-full border px-2 py-px whitespace-nowrap
              ${i === at ? "border-pine bg-mist text-ink" : "border-line hover:border-ink"}`}
          >
            {kinds[one.kind] && <span className="text-faint">{kinds[one.kind]} </span>}
            <span className="text-ink">{one.label}</span>
            {one.works !== null && (
              <>
                {" "}
                <b className="font-semibold">{count(one.works)}</b>
              </>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
