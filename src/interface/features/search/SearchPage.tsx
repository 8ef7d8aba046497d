import { useCallback, useEffect, useRef, useState } from "react";
import { useKeys } from "../../app/keys";
import { Fault } from "../../ui/Fault";
import { AsideSheet } from "../decisions/AsideSheet";
import { TagSheet } from "../decisions/TagSheet";
import { useDecide, useUndo } from "../decisions/useDecisions";
import { useReview } from "../reviews/useReviews";
import { WorkPane } from "../works/WorkPane";
import { Board } from "./Board";
import { NarrowBar } from "./NarrowBar";
import { PathStair } from "./PathStair";
import { SearchLine } from "./SearchLine";
import { StartHere } from "./StartHere";
import { WorkList, type ListHandle } from "./WorkList";
import { useLate, usePath, usePlace, useReading, useStepView, useTakeStep, useVisit } from "./useSearch";

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
  const pane = useRef<HTMLElement>(null);
  const [sheet, setSheet] = useState<"aside" | "tag" | null>(null);
  const decide = useDecide(place);
  const undo = useUndo(reviewId);
  useVisit(reviewId, stepId);

  const openWork = useCallback(
    (id: number | null) => change({ work: id === null ? null : String(id) }, true),
    [change],
  );
  const search = (expressionText: string) => {
    if (expressionText.trim() === expression.trim() && stepId !== 0) return;
    take.mutate(
      { act: { kind: "Search", expression: expressionText } },
      {
        onSuccess: () => {
          setLine(null);
          lineRef.current?.blur(); // the keys are the list's now
        },
      },
    );
  };
  const foldBoard = () => {
    setBoardOpen((open) => {
      localStorage.setItem("zendle.board", open ? "folded" : "open");
      return !open;
    });
  };

  useEffect(() => {
    if (stepId === 0) lineRef.current?.focus();
  }, [stepId]);

  const onWork = (act: (id: number) => void) => () => {
    const id = list.current?.current() ?? workId;
    if (id === null) return false;
    act(id);
    return true;
  };
  useKeys({
    "/": () => {
      lineRef.current?.focus();
      lineRef.current?.select();
      return true;
    },
    j: () => list.current?.move(1),
    k: () => list.current?.move(-1),
    ArrowDown: () => list.current?.move(1),
    ArrowUp: () => list.current?.move(-1),
    Enter: onWork((id) => {
      openWork(id);
      pane.current?.focus();
    }),
    p: onWork((id) => decide.one(id, "Keep")),
    x: onWork((id) => {
      openWork(id);
      setSheet("aside");
    }),
    t: onWork((id) => {
      openWork(id);
      setSheet("tag");
    }),
    u: () => {
      undo();
      return true;
    },
    b: () => {
      foldBoard();
      return true;
    },
  });

  if (view.error)
    return (
      <div className="p-8">
        <Fault error={view.error} again={() => change({ step: "0", work: null })} />
      </div>
    );

  const hasBoard = (boardOpen || stepId === 0) && typed.trim() !== "" && reading.data !== undefined;
  return (
    <>
      {review && <PathStair place={place} path={path.data ?? null} band={[review.bandLow, review.bandHigh]} />}
      <SearchLine
        ref={lineRef}
        text={text}
        onText={(t) => setLine({ step: stepId, text: t })}
        onSearch={search}
        reading={text.trim() ? (reading.data ?? null) : null}
        late={typed !== text || reading.isPlaceholderData}
        editing={editing}
        view={current ? view.data : null}
        boardOpen={boardOpen}
        onFold={foldBoard}
        onOpenWork={openWork}
      />
      {hasBoard && (
        <Board
          reading={reading.data}
          state={view.data?.state ?? null}
          missed={editing ? 0 : (view.data?.keptMissed ?? 0)}
          late={reading.isPlaceholderData}
          take={(act) => take.mutate({ act })}
        />
      )}
      {stepId === 0 && view.data ? (
        <StartHere place={place} />
      ) : (
        <>
          <NarrowBar place={place} view={view.data ?? null} take={(act) => take.mutate({ act })} decide={decide} />
          <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_440px] border-t border-line max-[1150px]:grid-cols-[minmax(0,1fr)_370px]">
            <WorkList
              ref={list}
              place={place}
              total={current ? listTotal(view.data, place.hideJudged) : null}
              selected={workId}
              onOpen={openWork}
              concepts={view.data?.concepts ?? []}
              onSearchNew={() => change({ step: "0", work: null })}
            />
            <WorkPane
              ref={pane}
              place={place}
              workId={workId}
              decide={decide}
              onAside={() => setSheet("aside")}
              onTag={() => setSheet("tag")}
              onSearch={(e) => search(e)}
            />
          </div>
        </>
      )}
      {workId !== null && (
        <>
          <AsideSheet
            key={`aside ${workId}`}
            open={sheet === "aside"}
            close={() => setSheet(null)}
            reviewId={reviewId}
            onReason={(reason) => decide.one(workId, "SetAside", reason)}
          />
          <TagSheet
            key={`tag ${workId}`}
            open={sheet === "tag"}
            close={() => setSheet(null)}
            reviewId={reviewId}
            workId={workId}
            stepId={stepId}
            decide={decide}
          />
        </>
      )}
    </>
  );
}

function listTotal(
  view: { count: number; kept: number; setAside: number } | undefined,
  hideJudged: boolean,
): number | null {
  if (!view) return null;
  return hideJudged ? view.count - view.kept - view.setAside : view.count;
}
