import type { Dto } from "../../api/client";
import { Press } from "../../ui/Press";
import { count, works } from "../../ui/numbers";

/** How many works are left at one or more, two or more … of something, in one line; a press makes the step. */
export function Stair({
  label,
  lead,
  levels,
  atLeast,
  said,
  all = null,
  take,
  colour,
}: {
  label: string;
  /** The words before the first level. */
  lead: string;
  levels: readonly Dto<"TieLevelDto">[];
  /** The level that is taken. */
  atLeast: number;
  /** What a level says, for who hears it and in its tooltip. */
  said: (atLeast: number) => string;
  /** The level that is all there can be; null where there is none. */
  all?: number | null;
  take: (atLeast: number) => void;
  colour: string;
}) {
  const most = Math.max(1, ...levels.map((l) => l.works));
  return (
    <div role="group" aria-label={label} className="mt-1 flex items-end gap-1 overflow-x-auto">
      <span className="pb-1 text-[11.5px] whitespace-nowrap text-quiet sm:max-[1199px]:hidden">{lead}</span>
      {levels.map((l) => (
        <Press
          key={l.atLeast}
          aria-pressed={l.atLeast === atLeast}
          onClick={() => take(l.atLeast)}
          title={`${works(l.works)} ${said(l.atLeast)}`}
          className={`min-w-[44px] flex-1 rounded-[4px] px-1 pt-0.5 text-left text-[12px] whitespace-nowrap
            ${l.atLeast === atLeast ? "outline-[1.5px] -outline-offset-1 outline-ink" : "hover:bg-soft"}`}
        >
          <b className="font-bold">{count(l.works)}</b>{" "}
          <span className="text-[11.5px] text-quiet">
            <span aria-hidden="true">{l.atLeast === all ? "all" : `${l.atLeast}+`}</span>
            <span className="sr-only">{said(l.atLeast)}</span>
          </span>
          <span
            aria-hidden="true"
            className={`block h-[4px] rounded-sm ${colour}`}
            style={{ width: `${Math.max(2, (100 * l.works) / most)}%` }}
          />
        </Press>
      ))}
    </div>
  );
}
