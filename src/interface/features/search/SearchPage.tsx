import { useEffect, useRef, useState } from "react";
import { Navigate } from "react-router";
import { useKeys } from "../../ui/keys";
import { Fault } from "../../ui/Fault";
import { DecisionSheets } from "../../set/decide/DecisionSheets";
import { CitersStrip } from "../../set/citers/CitersStrip";
import { NewEntrySheet } from "../../set/entry/NewEntrySheet";
import { useReadPrinted, type EntryFields } from "../../set/entry/useEntries";
import { useReview } from "../../review/useReviews";
import { WorkPane } from "../../set/work/WorkPane";
import { useAsk } from "../../set/useAsk";
import { useWorkInView } from "../../set/list/useWorkInView";
import { useIsNarrow, useIsWide } from "../../ui/useIsWide";
import { Board } from "./board/Board";
import { NarrowBar } from "../../set/narrow/NarrowBar";
import { PathStair } from "../../set/path/PathStair";
import { PastedSheet } from "./PastedSheet";
import { SearchLine } from "./SearchLine";
import { StartHere } from "./StartHere";
import { TermsPane, termParts } from "./terms/TermsPane";
import { isPartedUnasked, tellingGroups, useSenseOf, useSenses } from "./terms/useSenses";
import { NothingFound } from "./NothingFound";
import { PickedBar } from "../../set/list/PickedBar";
import { WorkList, type ListHandle } from "../../set/list/WorkList";
import { WorkRow } from "../../set/list/WorkRow";
import { useDensity } from "../../set/list/useDensity";
import { usePicked } from "../../set/list/usePicked";
import { useLate, usePath, usePlace, useReading, useStepView, useTakeStep, useVisit } from "../../set/useSet";
import { TextButton } from "../../ui/TextButton";

/** Search: the path on top, the line with its reading, narrowing, then list and pane side by side. */
export function SearchPage({ reviewId }: { reviewId: number }) {
  const review = useReview(reviewId).data;
  const place = usePlace(reviewId, review?.stepId ?? null);
  const { stepId, workId, change } = place;
  const path = usePath(reviewId, stepId);
  const view = useStepView(reviewId, stepId);
  const take = useTakeStep(place);
  const expression = view.data?.state.expression ?? "";
  const current = view.data?.stepId === stepId;

  const [line, setLine] = useState<{ step: number; text: string } | null>(
    place.say ? { step: stepId, text: place.say } : null,
  );
  const text = line?.step === stepId ? line.text : current ? expression : "";
  const typed = useLate(text, 140);
  const editing = text.trim() !== expression.trim();
  // The board speaks of the line as it stands; when it is empty there is nothing to speak of.
  const reading = useReading(reviewId, stepId, typed, true);
  const [boardOpen, setBoardOpen] = useState(() => localStorage.getItem("zendle.board") === "open");
  const lineRef = useRef<HTMLInputElement>(null);
  const list = useRef<ListHandle>(null);
  useVisit(reviewId, stepId);
  const picked = usePicked(stepId);
  const [pasted, setPasted] = useState<string | null>(null);
  const [entry, setEntry] = useState<EntryFields | null>(null);
  const readPrinted = useReadPrinted();

  const search = (expressionText: string, from?: number) => {
    if (expressionText.trim() === expression.trim() && stepId !== 0) return;
    take.mutate(
      { act: { kind: "Search", expression: expressionText }, from },
      {
        onSuccess: () => {
          setLine(null);
          lineRef.current?.blur(); // the keys are the list's now
        },
      },
    );
  };
  // A line that another database finds: a step that switches it on, then the line.
  const searchIn = (expressionText: string, databases: readonly number[] | null) => {
    if (databases === null) search(expressionText);
    else
      take.mutate(
        { act: { kind: "Databases", databases: [...databases] } },
        { onSuccess: ({ stepId: after }) => search(expressionText, after) },
      );
  };
  const [dense, setDense] = useDensity();
  const part = termParts.find((p) => p === place.words) ?? null;
  const senses = useSenses(
    reviewId,
    stepId,
    current && stepId !== 0 && (part === "senses" || isPartedUnasked(view.data?.count ?? 0)),
  ).data;
  const senseOf = useSenseOf(part === "senses" ? senses : undefined);
  const foldWords = () => change({ words: part === null ? "add" : null }, true);
  const foldBoard = () => {
    setBoardOpen((open) => {
      localStorage.setItem("zendle.board", open ? "folded" : "open");
      return !open;
    });
  };

  useEffect(() => {
    if (stepId === 0) lineRef.current?.focus();
  }, [stepId]);

  const ask = useAsk(take, view.data?.state, () => setLine(null));
  const [isDown, setIsDown] = useState(false);
  // The pane is never empty beside a list; on a narrow screen it takes the list's place, and waits until it is asked for.
  const [firstWork, setFirstWork] = useState<number | null>(null);
  const isWide = useIsWide();
  const isNarrow = useIsNarrow();
  const shown = workId ?? (isWide ? firstWork : null);
  const inView = useWorkInView(place, () => list.current, ask, shown);
  const { decide, follow, openWork } = inView;
  const stretch = (by: number) => {
    const at = list.current?.current() ?? null;
    if (at === null) return false;
    picked.add([at]);
    if (shown !== null) list.current?.move(by);
    const next = list.current?.current();
    if (next) picked.add([next]);
    openWork(next ?? at);
    return true;
  };
  useKeys({
    "/": () => {
      lineRef.current?.focus();
      lineRef.current?.select();
      return true;
    },
    " ": inView.onWork((id) => picked.flip(id)),
    // With shift the keys of the list take a stretch of it along.
    J: () => stretch(1),
    K: () => stretch(-1),
    d: () => {
      setDense(!dense);
      return true;
    },
    b: () => {
      foldBoard();
      return true;
    },
    w: () => {
      if (stepId === 0) return false;
      foldWords();
      return true;
    },
  });

  if (view.error)
    return (
      <div className="p-8">
        <Fault error={view.error} again={() => change({ step: "0", work: null })} />
      </div>
    );

  if (current && (view.data?.state.trail ?? view.data?.state.neighbours ?? view.data?.state.round))
    return <Navigate to={`/r/${reviewId}/trails?step=${stepId}`} replace />;

  const hasBoard = !isNarrow && (boardOpen || stepId === 0) && typed.trim() !== "" && reading.data !== undefined;
  return (
    <>
      {review && (
        <PathStair place={place} path={path.data ?? null} band={[review.bandLow, review.bandHigh]} isThin={isDown} />
      )}
      <SearchLine
        reviewId={reviewId}
        stepId={stepId}
        line={lineRef}
        text={text}
        onText={(t) => setLine({ step: stepId, text: t })}
        onSearch={searchIn}
        reading={text.trim() ? (reading.data ?? null) : null}
        late={typed !== text || reading.isPlaceholderData}
        editing={editing}
        view={current ? view.data : null}
        boardOpen={boardOpen}
        onFold={foldBoard}
        wordsOpen={part !== null}
        onWords={stepId === 0 ? null : foldWords}
        senses={senses ? tellingGroups(senses) : []}
        onSenses={() => change({ words: "senses" }, true)}
        onOpenWork={openWork}
        onReferences={setPasted}
        onAdd={
          review?.role === "Reader"
            ? null
            : (named) => readPrinted.mutate([named], { onSuccess: ([read]) => read && setEntry(untitled(read, named)) })
        }
      />
      {entry !== null && (
        <NewEntrySheet
          reviewId={reviewId}
          start={entry}
          close={() => setEntry(null)}
          onShow={(work) => change({ work: String(work) })}
        />
      )}
      {pasted !== null && <PastedSheet place={place} start={pasted} close={() => setPasted(null)} />}
      {hasBoard && (
        <Board
          key={stepId}
          place={place}
          line={text}
          onLine={(t) => setLine({ step: stepId, text: t })}
          reading={reading.data}
          state={view.data?.state ?? null}
          missed={editing ? 0 : (view.data?.keptMissed ?? 0)}
          late={reading.isPlaceholderData}
          take={(act) => take.mutate({ act })}
        />
      )}
      {stepId === 0 && view.data ? (
        <StartHere
          place={place}
          onTry={(t) => {
            setLine({ step: stepId, text: t });
            lineRef.current?.focus();
          }}
          onPaste={() => setPasted("")}
        />
      ) : (
        <>
          {current && view.data?.state.citers && (
            <CitersStrip
              key={stepId}
              reviewId={reviewId}
              stepId={stepId}
              citers={view.data.state.citers}
              take={(act) => take.mutate({ act })}
            />
          )}
          <NarrowBar place={place} view={view.data ?? null} take={(act) => take.mutate({ act })} decide={decide} />
          <div
            className={`grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_440px] border-t border-line
              max-[1150px]:grid-cols-[minmax(0,1fr)_370px] max-sm:grid-cols-[minmax(0,1fr)]
              ${shown === null && part === null ? "max-sm:[&>aside]:hidden" : "max-sm:[&>section]:hidden"}`}
          >
            <WorkList
              ref={list}
              place={place}
              list={{ sort: place.sort, side: null }}
              total={current ? listTotal(view.data, place.hideJudged) : null}
              selected={shown}
              onFirst={setFirstWork}
              onDown={setIsDown}
              onOpen={openWork}
              key={dense ? "dense" : "roomy"}
              rowHeight={dense ? 54 : 92}
              head={
                picked.ids.length > 0 ? (
                  <PickedBar
                    reviewId={reviewId}
                    picked={picked}
                    decide={decide}
                    follow={follow}
                    onOnly={() =>
                      take.mutate({ act: { kind: "Among", works: [...picked.ids], said: "picked in the list" } })
                    }
                  />
                ) : (
                  <div
                    className={`grid grid-cols-[44px_minmax(0,1fr)_auto] gap-2.5 border-b border-soft bg-paper py-0.5
                      pr-3.5 pl-[18px] text-[11.5px] text-faint`}
                  >
                    <span>year</span>
                    <span>work</span>
                    <span className="flex items-center gap-3">
                      {(view.data?.concepts.length ?? 0) > 0 && !dense && !isNarrow
                        ? "cited · terms in title, keywords, abstract"
                        : "cited"}
                      <TextButton
                        aria-pressed={dense}
                        onClick={() => setDense(!dense)}
                        title="Rows with or without their best sentence (D)"
                        className="h-6 rounded px-1.5 text-quiet"
                      >
                        {dense ? "roomy rows" : "dense rows"}
                      </TextButton>
                    </span>
                  </div>
                )
              }
              row={(row) => (
                <WorkRow
                  reviewId={reviewId}
                  row={row}
                  selected={row.id === shown}
                  onOpen={() => openWork(row.id)}
                  picked={picked.has(row.id)}
                  onPick={() => picked.flip(row.id)}
                  onRange={() => {
                    const from = list.current?.current() ?? row.id;
                    picked.add(list.current?.between(from, row.id) ?? [row.id]);
                  }}
                  onHit={(field) => inView.openAt(row.id, field)}
                  dense={dense}
                  onCited={() => follow([row.id], "Forward")}
                  sense={senseOf.get(row.id) ?? null}
                />
              )}
              empty={<NothingFound place={place} onSearchNew={() => change({ step: "0", work: null })} />}
            />
            {part !== null ? (
              <TermsPane
                line={{ reviewId, stepId, text: typed }}
                cards={reading.data?.board ?? []}
                part={part}
                onPart={(p) => change({ words: p }, true)}
                onLine={(t) => setLine({ step: stepId, text: t })}
                picked={picked.ids}
                workId={shown}
                decide={decide}
                takeStep={(act) => take.mutate({ act })}
                asked={view.data?.state ?? null}
                openWork={(id) => change({ words: null, work: String(id) })}
                close={() => change({ words: null }, true)}
              />
            ) : (
              <WorkPane ref={inView.paneRef} {...inView.pane} />
            )}
          </div>
        </>
      )}
      <DecisionSheets {...inView.sheets} />
    </>
  );
}

/** An entry of which only an identifier is known has no title yet. */
const untitled = (fields: EntryFields, identifier: string): EntryFields =>
  fields.title === identifier.trim() || fields.title === fields.doi ? { ...fields, title: "" } : fields;

function listTotal(
  view: { count: number; kept: number; setAside: number } | undefined,
  hideJudged: boolean,
): number | null {
  if (!view) return null;
  return hideJudged ? view.count - view.kept - view.setAside : view.count;
}
