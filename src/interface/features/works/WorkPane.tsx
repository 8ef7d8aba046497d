import { forwardRef, useEffect, useRef, useState } from "react";
import { Link } from "react-router";
import { useKeys } from "../../app/keys";
import type { Dto } from "../../api/client";
import { BackToList } from "../../ui/BackToList";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Marked } from "../../ui/Marked";
import { Withdrawn } from "../../ui/Withdrawn";
import { StageMark } from "../../ui/StageMark";
import { count, moment, ordinal } from "../../ui/numbers";
import type { Decide } from "../decisions/useDecisions";
import { useSeek } from "../gather/useGather";
import type { Place } from "../search/useSearch";
import { AskFor } from "./AskFor";
import { CiteSheet } from "../cite/CiteSheet";
import type { ShownField } from "./useWorkInView";
import type { Follow } from "../trails/useTrail";
import type { Ask } from "./useAsk";
import { TrailBar } from "./TrailBar";
import { useWork } from "./useWork";
import { RecordsSheet } from "./RecordsSheet";
import { OtherAbstracts, OtherTitles } from "./OtherTexts";
import { Score } from "./Score";
import { ReferencesSheet } from "./ReferencesSheet";

interface Props {
  place: Place;
  workId: number | null;
  decide: Decide;
  onAside: () => void;
  onTag: () => void;
  ask: Ask;
  follow: Follow;
  /** The field it was opened for; null for its top. */
  shown?: ShownField | null;
}

/** The record beside the list. */
export const WorkPane = forwardRef<HTMLElement, Props>(function WorkPane(
  { place, workId, decide, onAside, onTag, ask, follow, shown = null },
  ref,
) {
  const work = useWork(place.reviewId, workId, place.stepId);
  const [citing, setCiting] = useState(false);
  const body = useRef<HTMLDivElement>(null);
  const at = work.data?.id;
  useEffect(() => {
    if (shown && at === shown.workId)
      body.current?.querySelector(`[data-field="${shown.field}"]`)?.scrollIntoView({ block: "center" });
  }, [shown, at]);
  useKeys({
    c: () => {
      if (workId === null) return false;
      setCiting(true);
      return true;
    },
  });
  return (
    <aside
      ref={ref}
      tabIndex={-1}
      aria-label="Work"
      className="flex min-h-0 flex-col border-l border-line outline-none"
    >
      {workId === null ? (
        <p className="p-[18px] text-quiet">
          Choose a work in the list to read about it here. J and K go to the next and the previous one.
        </p>
      ) : work.error ? (
        <div className="p-[18px]">
          <Fault error={work.error} />
        </div>
      ) : work.data ? (
        <>
          <BackToList onBack={() => place.change({ work: null }, true)} />
          <div
            className={`min-h-0 flex-1 overflow-y-auto px-[18px] py-3 ${work.isPlaceholderData ? "opacity-60" : ""}`}
            key={work.data.id}
            ref={body}
          >
            <Body place={place} work={work.data} ask={ask} follow={follow} />
          </div>
          <Acts work={work.data} decide={decide} onAside={onAside} onTag={onTag} onCite={() => setCiting(true)} />
          <CiteSheet
            reviewId={place.reviewId}
            cited={{ works: [work.data.id] }}
            open={citing}
            close={() => setCiting(false)}
          />
        </>
      ) : (
        <div className="p-[18px]" aria-busy="true">
          <div className="shape mb-2 h-5 w-11/12" />
          <div className="shape mb-6 h-5 w-3/5" />
          <div className="shape h-40 w-full" />
        </div>
      )}
    </aside>
  );
});

function Acts({
  work,
  decide,
  onAside,
  onTag,
  onCite,
}: {
  work: Dto<"WorkDto">;
  decide: Decide;
  onAside: () => void;
  onTag: () => void;
  onCite: () => void;
}) {
  const { stage } = work.judgement;
  return (
    <div
      className={`flex shrink-0 items-center gap-2 border-t border-line bg-paper px-[18px] py-2 max-[1150px]:gap-1.5
        max-[1150px]:px-3 max-[1150px]:[&>button]:px-2`}
    >
      {stage === "kept" ? (
        <Button onClick={() => decide.one(work.id, "Clear")}>
          <StageMark stage="kept" /> Kept
        </Button>
      ) : (
        <Button kind="primary" onClick={() => decide.one(work.id, "Keep")}>
          Keep <Key k="P" />
        </Button>
      )}
      <Button onClick={stage === "set aside" ? () => decide.one(work.id, "Clear") : onAside}>
        {stage === "set aside" ? (
          <>
            <StageMark stage={stage} /> Set aside
          </>
        ) : (
          <>
            Set aside <Key k="X" />
          </>
        )}
      </Button>
      <Button onClick={onTag}>
        Tag <Key k="T" />
      </Button>
      <Button onClick={onCite}>
        Cite <Key k="C" />
      </Button>
    </div>
  );
}

function Key({ k }: { k: string }) {
  return <kbd className="rounded border border-current px-1 text-[11.5px] font-normal opacity-80">{k}</kbd>;
}

function Body({ place, work, ask, follow }: { place: Place; work: Dto<"WorkDto">; ask: Ask; follow: Follow }) {
  const seek = useSeek(place.reviewId);
  return (
    <>
      <h2 data-field="title" className="font-serif text-[18px] leading-[1.28] font-semibold">
        {work.title.text ? <Marked text={work.title} /> : "Without a title"}
      </h2>
      <OtherTitles work={work} />
      <People people={work.people} year={work.year} ask={ask} />
      <p className="mt-0.5 text-[12.5px] text-quiet">
        {work.venue && (
          <AskFor expression={`venue:"${work.venue}"`} ask={ask} title="This venue …">
            {work.venue}
          </AskFor>
        )}{" "}
        {work.volume}
        {work.issue && `(${work.issue})`}
        {work.pages && `, ${work.pages}`}
        {work.venue ? " · " : ""}
        {work.type}
        {work.language && work.language !== "English" && ` · ${work.language}`}
      </p>
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
      {work.onlyCited && (
        <p className="mt-3 text-[12.5px] text-quiet">
          Known only from reference lists; no database has a record of it.
        </p>
      )}
      {work.judgement.stage !== "found" && (
        <p className="mt-3 flex items-center gap-2 text-[12.5px]">
          <StageMark stage={work.judgement.stage} />
          <span>
            {work.judgement.stage === "kept" ? "Kept" : `Set aside: ${work.judgement.reason ?? ""}`}
            <span className="text-quiet">
              {work.judgement.by && `, by ${work.judgement.by}`}
              {work.judgement.at && `, ${moment(work.judgement.at)}`}
            </span>
          </span>
        </p>
      )}
      {work.judgement.tags.length > 0 && (
        <p className="mt-2 flex flex-wrap gap-1.5">
          {work.judgement.tags.map((t) => (
            <span key={t} className="rounded bg-soft px-1.5 text-[12px]">
              {t}
            </span>
          ))}
        </p>
      )}
      <Part title="Full text">
        {work.inHand ? (
          <p className="mb-1">
            <Link
              to={`/r/${place.reviewId}/read/${work.inHand.textId}`}
              className="font-semibold underline decoration-line underline-offset-2 hover:decoration-ink"
            >
              Read it
            </Link>{" "}
            <span className="text-quiet">
              in hand: {work.inHand.version ?? "version not known"}, {work.inHand.pages}{" "}
              {work.inHand.pages === 1 ? "page" : "pages"}
            </span>
          </p>
        ) : (
          <p className="mb-1">
            <button
              type="button"
              className="underline decoration-line underline-offset-2 hover:decoration-ink"
              onClick={() => seek.mutate({ works: [work.id], again: true })}
            >
              Gather its text
            </button>
          </p>
        )}
        {work.copies.length === 0 && <p className="text-quiet">No database lists a copy.</p>}
        {work.copies.map((c) => (
          <p key={c.address} className="truncate">
            <b className="font-semibold">{c.version ?? "version not stated"}</b>{" "}
            <span className="text-quiet">
              {c.access === "free" ? "free at" : c.access === "closed" ? "not free at" : "at"}
            </span>{" "}
            <a
              href={c.address}
              target="_blank"
              rel="noreferrer"
              className="underline decoration-line underline-offset-2 hover:decoration-ink"
            >
              {c.address.replace(/^https?:\/\//, "")}
            </a>
          </p>
        ))}
      </Part>
      <Terms title="Keywords" field="keywords" terms={work.keywords} ask={ask} />
      <Terms title="Controlled terms" field="controlled-terms" terms={work.controlledTerms} ask={ask} />
      {work.contents.length > 0 && (
        <Part title="Contents">
          <ol className="list-inside list-decimal font-serif text-[13px]">
            {work.contents.map((c) => (
              <li key={c}>{c}</li>
            ))}
          </ol>
        </Part>
      )}
      {work.related.length > 0 && (
        <Part title="Related items">
          <ul>
            {work.related.map((r) => (
              <li key={r.doi ?? r.title}>
                <span className="text-quiet">{ties[r.kind] ?? r.kind}</span>{" "}
                <span className="font-serif text-[13px]">{r.title ?? r.doi}</span>
              </li>
            ))}
          </ul>
        </Part>
      )}
      <Standings of={work.standings} />
      <ReferencesSheet reviewId={place.reviewId} work={work} />
      <Part title="Identifiers">
        <p>
          {[
            work.doi && `DOI ${work.doi}`,
            work.issn && `ISSN ${work.issn}`,
            work.isbn && `ISBN ${work.isbn}`,
            work.publisher,
            ...work.subjects,
            ...work.funders.map((f) => `funded by ${f}`),
          ]
            .filter(Boolean)
            .join(" · ") || "No identifier is known."}
        </p>
      </Part>
      <Records work={work} />
    </>
  );
}

const ties: Record<string, string> = {
  preceding: "is about",
  succeeding: "followed by",
  original: "first published as",
  series: "in the series",
  constituent: "contains",
  isReferencedBy: "cited by",
  reviewOf: "reviews",
};

/** Where the journal stands in its subject categories, with the numbers it comes from. */
function Standings({ of }: { of: readonly Dto<"StandingDto">[] }) {
  if (of.length === 0) return null;
  return (
    <Part title="Journal ranking">
      {of.map((s) => (
        <p key={s.category}>
          {s.quartile > 0 ? (
            <>
              <b className="font-semibold">quartile {s.quartile}</b> in {s.category}: {ordinal(s.rank)} of {s.ranked}{" "}
              <span className="text-quiet">
                · {s.ratio.toFixed(2)} citations per item ({count(s.citations)} in {s.year} to {count(s.items)} articles
                and reviews of the five years before, counted here)
              </span>
            </>
          ) : (
            <span className="text-quiet">
              no quartile in {s.category}: {s.whyNot}
            </span>
          )}
        </p>
      ))}
    </Part>
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

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section className="mt-4 border-t border-line pt-2 text-[12.5px]">
      <h3 className="mb-1 font-semibold">{title}</h3>
      {children}
    </section>
  );
}

const fewPeople = 8;

function People({ people, year, ask }: { people: readonly Dto<"PersonDto">[]; year: number | null; ask: Ask }) {
  const [all, setAll] = useState(false);
  const shown = all ? people : people.slice(0, fewPeople);
  return (
    <p data-field="people" className="mt-1 text-[12.5px]">
      {shown.map((p, i) => (
        <span key={i}>
          {i > 0 && " · "}
          <AskFor
            expression={`author:"${[p.given, p.family].filter(Boolean).join(" ")}"`}
            ask={ask}
            title={[p.affiliation, p.orcid && `ORCID iD ${p.orcid}`].filter(Boolean).join(", ") || "This name …"}
          >
            {p.family}
            {p.given && `, ${p.given}`}
          </AskFor>
        </span>
      ))}
      {people.length > fewPeople && (
        <button type="button" className="ml-1.5 text-quiet underline underline-offset-2" onClick={() => setAll(!all)}>
          {all ? "fewer" : `and ${people.length - fewPeople} more`}
        </button>
      )}
      {people.length === 0 && <span className="text-quiet">No people named</span>}{" "}
      <span className="text-quiet">{year ?? "no year"}</span>
    </p>
  );
}

function Records({ work }: { work: Dto<"WorkDto"> }) {
  const [comparing, setComparing] = useState(false);
  return (
    <Part title={work.records.length === 1 ? "One record describes it" : `${work.records.length} records describe it`}>
      <p className="mb-1.5">
        <button
          type="button"
          className="underline decoration-line underline-offset-2 hover:decoration-ink"
          onClick={() => setComparing(true)}
        >
          {work.records.length === 1 ? "Show its fields" : "Compare them side by side"}
        </button>
      </p>
      <RecordsSheet workId={work.id} open={comparing} close={() => setComparing(false)} />
      <ul className="space-y-1.5">
        {work.records.map((r) => (
          <li key={r.id}>
            <b className="font-semibold">{r.database}</b>{" "}
            <span className="text-quiet">
              {r.identifier} · {r.year ?? "no year"}
              {r.version && ` · ${r.version}`}
              {r.cited !== null && ` · citations: ${count(r.cited)}`}
            </span>
            {r.title !== work.title.text && (
              <span className="block font-serif text-[13px]">“{r.titleIsTranslated ? `[${r.title}]` : r.title}”</span>
            )}
            {r.notes.map((n) => (
              <span key={n} className="block text-quiet">
                {n}
              </span>
            ))}
          </li>
        ))}
      </ul>
      {work.evidence.length > 0 && (
        <p className="mt-1.5 text-quiet">Joined by {[...new Set(work.evidence.flatMap((e) => e.for))].join("; ")}.</p>
      )}
    </Part>
  );
}

/** Terms of a work, each of which can be searched among keywords and controlled terms. */
function Terms({
  title,
  field,
  terms,
  ask,
}: {
  title: string;
  field: string;
  terms: Dto<"WorkDto">["keywords"];
  ask: Ask;
}) {
  if (terms.length === 0) return null;
  return (
    <Part title={title}>
      <p data-field={field} className="flex flex-wrap gap-x-3 gap-y-[7px]">
        {terms.map((k) => (
          <AskFor
            key={k.text}
            expression={`keywords:"${k.text}"`}
            ask={ask}
            title="Among keywords and controlled terms …"
            className="decoration-dotted"
          >
            <Marked text={k} />
          </AskFor>
        ))}
      </p>
    </Part>
  );
}
