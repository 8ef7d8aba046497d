import { Popover } from "radix-ui";
import { useState } from "react";
import type { Dto } from "../../api/client";
import type { Place } from "../../set/useSet";
import { useBeginRound, useRounds } from "../../set/useRounds";
import type { NeighbourKind } from "../../set/useTrail";
import { kindName, kinds as allKinds } from "../../set/neighbourWords";
import { Button, barButton } from "../../ui/Button";
import { PopOver } from "../../ui/PopOver";
import { Press } from "../../ui/Press";
import { count, works } from "../../ui/numbers";
import { Enough } from "./Enough";

/** The rounds of the review in one line: a column for each, the next to begin, and whether it is enough. */
export function RoundsStrip({
  place,
  isInLine = false,
}: {
  place: Place;
  /** Whether the line has more in it. */ isInLine?: boolean;
}) {
  const rounds = useRounds(place.reviewId).data;
  if (!rounds || (rounds.kept === 0 && rounds.rounds.length === 0)) return null;
  const most = Math.max(1, ...rounds.rounds.map((r) => r.found));
  return (
    <section
      aria-label="Rounds"
      className={`flex items-center gap-2 overflow-x-auto ${
        isInLine
          ? "min-w-0 flex-1 border-l border-line pl-3"
          : "h-[30px] shrink-0 border-b border-line px-[18px] max-sm:px-3"
      }`}
    >
      <h2 className="shrink-0 text-[12.5px] text-quiet">Rounds</h2>
      <ol className="flex shrink-0 items-stretch gap-1">
        {rounds.rounds.map((r) => (
          <li key={r.number}>
            <Column
              round={r}
              most={most}
              isOpen={r.stepId === place.stepId}
              open={() => place.change({ step: String(r.stepId), work: null })}
            />
          </li>
        ))}
      </ol>
      <NextRound place={place} rounds={rounds} />
      <span className="flex-1" />
      <Popover.Root>
        <Popover.Trigger className={`${barButton} shrink-0`}>Is it enough?</Popover.Trigger>
        <PopOver label="Is it enough?" width={460} align="end">
          <Enough rounds={rounds} />
        </PopOver>
      </Popover.Root>
    </section>
  );
}

/** One round: new works as a bar, kept ones in it; the share known before is what the bar leaves of its frame. */
function Column({
  round: r,
  most,
  isOpen,
  open,
}: {
  round: Dto<"RoundDto">;
  most: number;
  isOpen: boolean;
  open: () => void;
}) {
  const wide = 34;
  const width = (n: number) => Math.round((wide * n) / most);
  const known = r.found === 0 ? 0 : Math.round((100 * (r.found - r.new)) / r.found);
  return (
    <Press
      aria-current={isOpen ? "step" : undefined}
      onClick={open}
      title={
        `Round ${r.number}, from ${works(r.seeds)}: its trails led to ${works(r.found)}, ${known} % of them known before. ` +
        `${count(r.new)} new, ${count(r.kept)} kept, ${count(r.left)} left to look at.`
      }
      className={`flex items-center gap-2 rounded-md border px-2 py-0.5 text-left text-[12px] whitespace-nowrap
        ${isOpen ? "border-pine bg-mist" : "border-transparent hover:bg-soft"}`}
    >
      <span className="text-quiet">{r.number}</span>
      <span aria-hidden="true" className="grid gap-[2px]">
        <span className="block h-[5px] rounded-sm border border-edge/50" style={{ width: Math.max(3, width(r.found)) }}>
          <span className="block h-full bg-pine/40" style={{ width: Math.max(1, width(r.new)) }} />
        </span>
        <span
          className="block h-[5px] rounded-sm bg-kept"
          style={{ width: Math.max(r.kept > 0 ? 2 : 0, width(r.kept)) }}
        />
      </span>
      <span>
        <b className="font-bold">{count(r.new)}</b> <span className="text-quiet">new</span>{" "}
        <b className="font-bold">{count(r.kept)}</b> <span className="text-quiet">kept</span>
        {r.left > 0 && (
          <>
            {" "}
            <b className="font-bold">{count(r.left)}</b> <span className="text-quiet">left</span>
          </>
        )}
      </span>
    </Press>
  );
}

/** Begins the next round: from what was kept since the last, or from all; by trails alone, or with near neighbours. */
function NextRound({ place, rounds }: { place: Place; rounds: Dto<"RoundsDto"> }) {
  const begin = useBeginRound(place);
  const [open, setOpen] = useState(false);
  const [fromAll, setFromAll] = useState(false);
  const [kinds, setKinds] = useState<NeighbourKind[]>([]);
  const [atLeast, setAtLeast] = useState(3);
  const number = (rounds.rounds.at(-1)?.number ?? 0) + 1;
  const all = fromAll || rounds.rounds.length === 0;
  const seeds = all ? rounds.kept : rounds.keptSince;
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className={`${barButton} shrink-0`}>
        {number === 1
          ? `First round, from ${works(rounds.kept)} kept …`
          : `Round ${number}: ${count(rounds.keptSince)} kept since …`}
      </Popover.Trigger>
      <PopOver label={`Begin round ${number}`} width={380}>
        <p className="mb-2 text-[13px]">
          Candidates are what {works(seeds)} {seeds === 1 ? "cites and what cites it" : "cite and what cites them"},
          less what you looked at and what anybody judged.
        </p>
        {rounds.rounds.length > 0 && (
          <label className="mb-2 flex items-center gap-2 text-[13px]">
            <input
              type="checkbox"
              checked={fromAll}
              onChange={(e) => setFromAll(e.target.checked)}
              className="accent-[var(--pine)]"
            />
            from all {count(rounds.kept)} kept works, not only those kept since
          </label>
        )}
        <fieldset className="mb-3">
          <legend className="text-[12.5px] text-quiet">Neighbours as well:</legend>
          {allKinds.map((kind) => (
            <label key={kind} className="flex items-center gap-2 py-0.5 text-[13px]">
              <input
                type="checkbox"
                checked={kinds.includes(kind)}
                onChange={() => setKinds(kinds.includes(kind) ? kinds.filter((k) => k !== kind) : [...kinds, kind])}
                className="accent-[var(--pine)]"
              />
              {kindName[kind]}
            </label>
          ))}
          {kinds.length > 0 && (
            <label className="mt-1 flex items-center gap-2 text-[13px]">
              with at least
              <input
                type="number"
                min={1}
                max={50}
                value={atLeast}
                onChange={(e) => setAtLeast(Math.max(1, Number(e.target.value) || 1))}
                className="h-7 w-[56px] rounded border border-edge bg-raised px-1.5"
              />
              in common
            </label>
          )}
        </fieldset>
        <Button
          kind="primary"
          disabled={seeds === 0 || begin.isPending}
          onClick={() =>
            begin.mutate(
              { kinds, atLeast: kinds.length > 0 ? atLeast : 1, fromAllKept: all },
              { onSuccess: () => setOpen(false) },
            )
          }
        >
          {seeds === 0 ? "Nothing was kept since" : `Begin round ${number}`}
        </Button>
      </PopOver>
    </Popover.Root>
  );
}
