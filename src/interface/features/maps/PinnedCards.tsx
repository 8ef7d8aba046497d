import { useWork } from "../../set/useWork";
import { Marked } from "../../ui/Marked";
import { Press } from "../../ui/Press";
import { StageMark } from "../../ui/StageMark";
import { TextButton } from "../../ui/TextButton";
import { count } from "../../ui/numbers";
import type { MapOf } from "./useMap";

/** Cards of works side by side under the map, to be compared. */
export function PinnedCards({
  reviewId,
  stepId,
  pins,
  map,
  ordinals,
  by,
  onOpen,
  onUnpin,
}: {
  reviewId: number;
  stepId: number;
  pins: readonly number[];
  map: MapOf;
  /** By id: the ordinal of a work on the map. */
  ordinals: ReadonlyMap<number, number>;
  by: readonly (readonly number[])[];
  onOpen: (id: number) => void;
  onUnpin: (id: number) => void;
}) {
  return (
    <ul
      aria-label="Pinned works"
      className={`grid max-h-[210px] shrink-0 auto-cols-[minmax(180px,1fr)] grid-flow-col gap-2 overflow-x-auto border-t
        border-line bg-soft px-[18px] py-2`}
    >
      {pins.map((id) => {
        const at = ordinals.get(id);
        const cites = at === undefined ? [] : (map.works[at]?.cites ?? []);
        const among = pins.filter((other) => other !== id && cites.includes(ordinals.get(other) ?? -1));
        return (
          <Card
            key={id}
            reviewId={reviewId}
            stepId={stepId}
            id={id}
            here={
              at === undefined
                ? "not in this set"
                : `cites ${count(cites.length)} and is cited by ${count(by[at]?.length ?? 0)} here`
            }
            among={among.flatMap((other) => map.works[ordinals.get(other) ?? -1]?.name ?? [])}
            onOpen={onOpen}
            onUnpin={onUnpin}
          />
        );
      })}
    </ul>
  );
}

const namesOf = (people: readonly { family: string }[]): string =>
  people.length === 0
    ? "no people named"
    : people.length > 3
      ? `${people[0]?.family ?? ""} and ${people.length - 1} others`
      : people.map((p) => p.family).join(", ");

function Card({
  reviewId,
  stepId,
  id,
  here,
  among,
  onOpen,
  onUnpin,
}: {
  reviewId: number;
  stepId: number;
  id: number;
  /** How it is linked on the map. */
  here: string;
  /** Names of the other pinned works that it cites. */
  among: readonly string[];
  onOpen: (id: number) => void;
  onUnpin: (id: number) => void;
}) {
  const work = useWork(reviewId, id, stepId).data;
  if (work?.id !== id) return <li className="shape h-32 rounded-md" aria-label="A pinned work is fetched" />;
  const { stage } = work.judgement;
  return (
    <li data-pin={id} className="flex min-w-0 flex-col overflow-y-auto rounded-md border border-line bg-raised p-2.5">
      <div className="flex items-baseline gap-2 text-[12px] text-quiet">
        <StageMark stage={stage} />
        <span className="min-w-0 flex-1 truncate">
          {work.year ?? "n.d."} · {namesOf(work.people)}
        </span>
        <TextButton className="min-h-6 min-w-6" aria-label={`Unpin ${work.title.text}`} onClick={() => onUnpin(id)}>
          unpin
        </TextButton>
      </div>
      <Press
        className="mt-0.5 text-left font-serif text-[13.5px] leading-tight font-semibold"
        onClick={() => onOpen(id)}
      >
        <Marked text={work.title} />
      </Press>
      <p className="mt-1 text-[12px] text-quiet">
        {here}
        {among.length > 0 && `; of these cards it cites ${among.join(", ")}`}
      </p>
      {work.abstract.text && (
        <p className="mt-1 text-[12.5px] leading-snug">
          <Marked text={work.abstract} />
        </p>
      )}
    </li>
  );
}
