import { count, works } from "../../../ui/numbers";
import { Press } from "../../../ui/Press";
import { TextButton } from "../../../ui/TextButton";
import type { StepAct } from "../../../set/useSet";
import { PartWaits } from "./PartWaits";
import { useSenses, type Senses } from "./useSenses";

type Group = Senses["groups"][number];

/** The groups of the set in view that use its words in different company; each can be kept or dropped as a step. */
export function SensesPart({
  reviewId,
  stepId,
  take,
  openWork,
}: {
  reviewId: number;
  stepId: number;
  take: (act: StepAct) => void;
  openWork: (work: number) => void;
}) {
  const senses = useSenses(reviewId, stepId, true);
  const data = senses.data;
  if (!data) return <PartWaits error={senses.error} />;
  if (data.total > data.most)
    return (
      <p className="px-[18px] py-4 text-[13px] text-quiet">
        {count(data.total)} works are too many for finding senses; narrow the set to {count(data.most)} or fewer.
      </p>
    );
  if (data.groups.length === 0)
    return (
      <p className="px-[18px] py-4 text-[13px] text-quiet">
        These works do not fall into groups: too few of them share references or keywords, or cite one another.
      </p>
    );
  const all = data.groups.flatMap((g) => g.works).concat(data.rest);
  const name = (group: Group) => group.terms.slice(0, 3).join(", ");
  const among = (ids: readonly number[], said: string) => take({ kind: "Among", works: [...ids], said });
  return (
    <>
      <p className="px-[18px] py-2 text-[12.5px] text-quiet">
        {works(data.total)} in view, grouped by shared references, citations and keywords. Each group is named by the
        terms that mark it.
      </p>
      <ul aria-label="Senses">
        {data.groups.map((group) => {
          const inside = new Set(group.works);
          return (
            <li key={group.works[0]} className="border-b border-soft px-[18px] py-2">
              <div className="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3">
                <h3 className="font-serif text-[14.5px] leading-snug">
                  <span className="font-semibold">{group.terms[0] ?? "unnamed"}</span>
                  {group.terms.length > 1 && `, ${group.terms.slice(1).join(", ")}`}
                </h3>
                <b className="text-[14px]">{count(group.works.length)}</b>
              </div>
              <div className="mt-0.5 mb-1 h-[3px] bg-soft" aria-hidden="true">
                <div className="h-full bg-pine" style={{ width: `${(100 * group.works.length) / data.total}%` }} />
              </div>
              <p className="text-[12px] text-quiet">
                {[group.subjects.join(", "), group.from > 0 ? `${group.from}–${group.to}` : null]
                  .filter(Boolean)
                  .join(" · ")}
              </p>
              <ul className="my-1 text-[12.5px]">
                {group.examples.map((e) => (
                  <li key={e.workId} className="grid grid-cols-[36px_minmax(0,1fr)] items-center">
                    <span className="text-[11.5px] text-quiet">{e.year ?? "n.d."}</span>
                    <Press
                      onClick={() => openWork(e.workId)}
                      className="truncate min-h-6 text-left font-serif hover:underline"
                      title={e.title}
                    >
                      {e.title}
                    </Press>
                  </li>
                ))}
              </ul>
              <p className="flex gap-4 text-[12.5px]">
                <TextButton className="min-h-6" onClick={() => among(group.works, `only ${name(group)}`)}>
                  only these
                </TextButton>
                <TextButton
                  className="min-h-6"
                  onClick={() =>
                    among(
                      all.filter((w) => !inside.has(w)),
                      `without ${name(group)}`,
                    )
                  }
                >
                  drop these
                </TextButton>
              </p>
            </li>
          );
        })}
      </ul>
      {data.rest.length > 0 && (
        <p className="flex items-baseline gap-3 px-[18px] py-2 text-[12.5px] text-quiet">
          {works(data.rest.length)} in no group
          <TextButton className="min-h-6" onClick={() => among(data.rest, "works in no group")}>
            only these
          </TextButton>
        </p>
      )}
    </>
  );
}
