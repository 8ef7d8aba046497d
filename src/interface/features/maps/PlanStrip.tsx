import type { ReactNode } from "react";
import type { Dto } from "../../api/client";
import type { Picked } from "../../set/list/usePicked";
import { TextButton } from "../../ui/TextButton";
import { count, works } from "../../ui/numbers";
import type { MapOf } from "./useMap";

const lanesSaid = 6;

/** What the work that is held against the set cites of it, and what it leaves out. */
export function PlanStrip({
  map,
  plan,
  by,
  ordinals,
  laneName,
  picked,
  onCiteMore,
  onOff,
}: {
  map: MapOf;
  plan: Dto<"PlanDto">;
  by: readonly (readonly number[])[];
  /** By id: the ordinal of a work on the map. */
  ordinals: ReadonlyMap<number, number>;
  laneName: (lane: number) => string;
  picked: Picked;
  /** Lets it cite more works; null where it is no custom entry. */
  onCiteMore: ((works: readonly number[]) => void) | null;
  onOff: () => void;
}) {
  // What is picked and not cited yet could be.
  const more = picked.ids.filter((id) => {
    const at = ordinals.get(id);
    return id !== plan.work.id && (at === undefined || !plan.work.cites.includes(at));
  });
  const left = plan.lanesLeftOut;
  const lanes = map.lanes.filter((l) => l.kind === "Value").length;
  return (
    <section
      aria-label="Compared with the set"
      className="shrink-0 border-b border-line bg-soft px-[18px] py-1.5 text-[12.5px]"
    >
      <p className="flex flex-wrap items-baseline gap-x-3 gap-y-0.5">
        <b className="max-w-[420px] truncate font-serif text-[13.5px] font-semibold">{plan.work.title}</b>
        <span>
          cites {count(plan.work.cites.length)} of {works(map.works.length - (plan.at === null ? 0 : 1))}
          {plan.work.citesOutside > 0 && ` and ${count(plan.work.citesOutside)} elsewhere`}
        </span>
        {onCiteMore && more.length > 0 && (
          <TextButton onClick={() => onCiteMore(more)}>
            let it cite the {more.length === 1 ? "picked work" : `${count(more.length)} picked works`}
          </TextButton>
        )}
        <TextButton className="ml-auto text-quiet" onClick={onOff}>
          take it off the map
        </TextButton>
      </p>
      {left.length > 0 && (
        <Line label={`Leaves out ${left.length === lanes ? "all" : count(left.length)} of ${count(lanes)} lanes`}>
          {left
            .slice(0, lanesSaid)
            .map((l) => `${laneName(l)} (${count(map.lanes[l]?.works ?? 0)})`)
            .join(" · ")}
          {left.length > lanesSaid && ` and ${count(left.length - lanesSaid)} more`}
        </Line>
      )}
      {plan.muchCited.length > 0 && (
        <Line label="Leaves out much-cited works">
          {plan.muchCited
            .flatMap((i) => {
              const work = map.works[i];
              const others = (by[i] ?? []).filter((c) => c !== plan.at).length;
              return work ? [`${work.name} (cited by ${count(others)} here)`] : [];
            })
            .join(" · ")}{" "}
          <TextButton onClick={() => picked.add(plan.muchCited.flatMap((i) => map.works[i]?.id ?? []))}>
            pick them
          </TextButton>
        </Line>
      )}
    </section>
  );
}

function Line({ label, children }: { label: string; children: ReactNode }) {
  return (
    <p className="mt-0.5 text-quiet">
      <span className="text-ink">{label}:</span> {children}
    </p>
  );
}
