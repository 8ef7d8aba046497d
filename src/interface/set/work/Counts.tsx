import type { Dto } from "../../api/client";
import { count } from "../../ui/numbers";
import type { Place } from "../useSet";
import { Score } from "./Score";

/** How often it is cited, by whose count, and where the terms of the search stand in it. */
export function Counts({ place, work }: { place: Place; work: Dto<"WorkDto"> }) {
  return (
    <>
      <dl className="mt-3 flex flex-wrap gap-x-5 gap-y-2 text-[12px] text-quiet">
        {work.citedByDatabase.map((d) => (
          <Fact key={d.database} n={count(d.cited)} word={`cited in ${d.database}`} />
        ))}
        <Fact n={count(work.citedCount)} word="cited by works here" />
        <Fact n={work.citedPerYear.toFixed(1)} word="per year" />
      </dl>
      {work.hits.title + work.hits.keywords + work.hits.abstract > 0 && (
        <p className="mt-3 text-[12.5px] text-quiet">
          Terms found: {work.hits.title} in the title, {work.hits.keywords} in keywords, {work.hits.abstract} in the
          abstract.
        </p>
      )}
      {work.hits.title + work.hits.keywords + work.hits.abstract > 0 && (
        <Score key={`score ${String(work.id)}`} place={place} workId={work.id} />
      )}
    </>
  );
}

function Fact({ n, word }: { n: string; word: string }) {
  return (
    <div>
      <dd className="text-[13.5px] font-bold text-ink">{n}</dd>
      <dt>{word}</dt>
    </div>
  );
}
