import type { Dto } from "../../api/client";
import { Marked } from "../../ui/Marked";
import { Withdrawn } from "../../ui/Withdrawn";
import type { Ask } from "../useAsk";
import type { Place } from "../useSet";
import type { Follow } from "../useTrail";
import { Counts } from "./Counts";
import { FullText } from "./FullText";
import { People, Venue } from "./Heading";
import { Judgement } from "./Judgement";
import { Book } from "./Book";
import { Contents } from "./Contents";
import { Identifiers } from "./Identifiers";
import { Related } from "./Related";
import { OtherAbstracts, OtherTitles } from "./OtherTexts";
import { Records } from "./Records";
import { ReferencesSheet } from "./ReferencesSheet";
import { Said } from "./Said";
import { Standings } from "./Standings";
import { Terms } from "./Terms";
import { TrailBar } from "./TrailBar";

/** All that is known of a work, from its title to the records that describe it. */
export function WorkBody({
  place,
  work,
  ask,
  follow,
}: {
  place: Place;
  work: Dto<"WorkDto">;
  ask: Ask;
  follow: Follow;
}) {
  return (
    <>
      <h2 data-field="title" className="font-serif text-[18px] leading-[1.28] font-semibold">
        {work.title.text ? <Marked text={work.title} /> : "Without a title"}
      </h2>
      <OtherTitles work={work} />
      <People people={work.people} year={work.year} ask={ask} />
      <Venue work={work} ask={ask} />
      {work.withdrawn && (
        <p className="mt-1">
          <Withdrawn />
        </p>
      )}
      <TrailBar key={work.id} work={work} follow={follow} />
      <div data-field="abstract" className="font-serif text-[15px] leading-[1.5]">
        {work.abstract.text ? (
          <Marked text={work.abstract} />
        ) : (
          <p className="text-quiet">No database has an abstract of this work.</p>
        )}
      </div>
      {work.abstractFrom && work.records.length > 1 && (
        <p className="mt-1 text-[11.5px] text-faint">abstract from {work.abstractFrom}</p>
      )}
      <OtherAbstracts work={work} />
      <Counts place={place} work={work} />
      {work.onlyCited && (
        <p className="mt-3 text-[12.5px] text-quiet">
          Known only from reference lists; no database has a record of it.
        </p>
      )}
      <Judgement of={work.judgement} />
      <FullText place={place} work={work} />
      <Said place={place} work={work} />
      <Terms title="Keywords" field="keywords" terms={work.keywords} ask={ask} />
      <Terms title="Controlled terms" field="controlled-terms" terms={work.controlledTerms} ask={ask} />
      <Book place={place} work={work} ask={ask} />
      <Contents of={work.contents} />
      <Related to={work.related} />
      <Standings of={work.standings} />
      <ReferencesSheet reviewId={place.reviewId} work={work} />
      <Identifiers of={work} />
      <Records reviewId={place.reviewId} work={work} />
    </>
  );
}
