import type { Dto } from "../../api/client";
import { Fault } from "../../ui/Fault";
import { Sheet } from "../../ui/Sheet";
import { count } from "../../ui/numbers";
import { useOpenSet } from "../useOpenSet";
import type { Place } from "../useSet";
import { useAgainst } from "./useStep";
import { Press } from "../../ui/Press";

/** Two branches held against each other: what both find, what only one finds. Each part opens as a step. */
export function CompareSheet({
  place,
  here,
  there,
  close,
}: {
  place: Place;
  here: number;
  there: number;
  close: () => void;
}) {
  const against = useAgainst(place.reviewId, here, there);
  const open = useOpenSet(place);
  const data = against.data;
  const go = (from: number, other: number, apart: boolean, said: string) => {
    close();
    open(from, [{ act: { kind: "Compare", apart, said: said.slice(0, 200) }, otherStepId: other }]);
  };
  return (
    <Sheet open onOpenChange={close} width={620} title="Compare two steps">
      {against.error && <Fault error={against.error} />}
      {data && (
        <>
          <Bars data={data} />
          <ul className="mt-4 divide-y divide-line border-y border-line text-[13.5px]">
            <Part
              n={data.onlyHere}
              words={`only in “${data.here}”`}
              onOpen={() => go(here, there, true, `not in “${data.there}”`)}
            />
            <Part n={data.both} words="in both" onOpen={() => go(here, there, false, `also in “${data.there}”`)} />
            <Part
              n={data.onlyThere}
              words={`only in “${data.there}”`}
              onOpen={() => go(there, here, true, `not in “${data.here}”`)}
            />
          </ul>
        </>
      )}
    </Sheet>
  );
}

function Part({ n, words, onOpen }: { n: number; words: string; onOpen: () => void }) {
  return (
    <li>
      <Press
        disabled={n === 0}
        onClick={onOpen}
        className={`grid w-full grid-cols-[70px_minmax(0,1fr)_auto] items-baseline gap-3 px-1 py-2 text-left
          enabled:hover:bg-mist disabled:text-faint`}
      >
        <b className="text-right text-[16px] font-bold">{count(n)}</b>
        <span className="truncate">{words}</span>
        <span className="text-[12.5px] text-quiet">{n > 0 && "open"}</span>
      </Press>
    </li>
  );
}

/** Both on one scale, one under the other; what they share lies where they lie over each other. */
function Bars({ data }: { data: Dto<"AgainstDto"> }) {
  const all = Math.max(1, data.onlyHere + data.both + data.onlyThere);
  const share = (n: number) => `${(100 * n) / all}%`;
  return (
    <div className="grid gap-1.5 text-[12.5px]" aria-hidden="true">
      <div>
        <p className="truncate">
          <b>{count(data.hereCount)}</b> <span className="text-quiet">{data.here}</span>
        </p>
        <div className="h-[10px] bg-soft">
          <i className="block h-full bg-pine" style={{ width: share(data.hereCount) }} />
        </div>
      </div>
      <div>
        <div className="h-[10px] bg-soft">
          <i
            className="block h-full bg-measure"
            style={{ width: share(data.thereCount), marginLeft: share(data.onlyHere) }}
          />
        </div>
        <p className="truncate text-right">
          <span className="text-quiet">{data.there}</span> <b>{count(data.thereCount)}</b>
        </p>
      </div>
    </div>
  );
}
