import { useState } from "react";
import { Button } from "../../../ui/Button";
import { Fault } from "../../../ui/Fault";
import { Select } from "../../../ui/Input";
import { count, works } from "../../../ui/numbers";
import { ByAge } from "./ByAge";
import { ByPromise } from "./ByPromise";
import { OfferedRow } from "./OfferedRow";
import { OwnTerm } from "./OwnTerm";
import { Refused } from "./Refused";
import type { TermsContext } from "./context";
import { useOfferedTerms, type OfferedTerm, type TermSource } from "./useTerms";

const sources: Record<TermSource, string> = {
  Kept: "the kept works",
  Missed: "kept works that the search misses",
  Listed: "the picked works",
};

/** How offers are put in order. */
type Order = "promise" | "age";

/** Terms that mark the good works against the rest, each for the concept it belongs to. */
export function ToAdd({
  context,
  picked,
  workId,
}: {
  context: TermsContext;
  picked: readonly number[];
  workId: number | null;
}) {
  const [source, setSource] = useState<TermSource>("Kept");
  const [order, setOrder] = useState<Order>("promise");
  const listed = source !== "Listed" ? [] : picked.length > 0 ? picked : workId === null ? [] : [workId];
  const offered = useOfferedTerms(context.line, source, listed);
  const data = offered.data;
  // By term the card that was chosen in place of the proposed one, and the terms ticked to be taken together.
  const [moved, setMoved] = useState<ReadonlyMap<string, number>>(new Map());
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const cardOf = (term: OfferedTerm) => moved.get(term.text) ?? term.card;
  const all = [...(data?.abbreviated ?? []), ...(data?.ofVocabularies ?? []), ...(data?.terms ?? [])];
  const together = all.filter((t) => ticked.has(t.text));
  const row = (term: OfferedTerm) => (
    <OfferedRow
      key={term.text}
      term={term}
      good={data?.good ?? 0}
      card={cardOf(term)}
      onCard={(card) => setMoved(new Map(moved).set(term.text, card))}
      isTicked={ticked.has(term.text)}
      onTick={() =>
        setTicked(new Set(ticked.has(term.text) ? [...ticked].filter((t) => t !== term.text) : [...ticked, term.text]))
      }
      context={context}
    />
  );
  return (
    <div className={offered.isPlaceholderData ? "opacity-60" : ""} aria-busy={offered.isFetching}>
      <div className="flex flex-wrap items-center gap-x-2 gap-y-1 px-[18px] py-2 text-[12.5px] text-quiet">
        <label className="flex items-center gap-2">
          Terms of
          <Select
            value={source}
            onChange={(e) => setSource(e.target.value as TermSource)}
            className="h-[26px] text-[12.5px] text-ink"
          >
            <option value="Kept">{sources.Kept}</option>
            <option value="Missed">{sources.Missed}</option>
            <option value="Listed">{picked.length > 0 ? sources.Listed : "the work in view"}</option>
          </Select>
        </label>
        {data && <span className="grow">{works(data.good)}, against all others</span>}
        <Select
          aria-label="Order of the terms"
          value={order}
          onChange={(e) => setOrder(e.target.value as Order)}
          className="h-[26px] text-[12.5px] text-ink"
        >
          <option value="promise">most promising first</option>
          <option value="age">older and newer words</option>
        </Select>
      </div>
      {offered.error && (
        <div className="px-[18px]">
          <Fault error={offered.error} />
        </div>
      )}
      <OwnTerm context={context} />
      {data?.terms.length === 0 && <Nothing source={source} good={data.good} />}
      {data &&
        (order === "age" && all.length > 0 ? (
          <ByAge context={context} inUse={data.inUse} offered={all} row={row} />
        ) : (
          <ByPromise offered={data} row={row} />
        ))}
      {data && <Refused reviewId={context.line.reviewId} terms={data.refused} />}
      {together.length > 0 && (
        <div className="sticky bottom-0 border-t border-line bg-paper px-[18px] py-2">
          <Button
            kind="primary"
            disabled={context.isTaking}
            onClick={() => {
              context.take(together.map((t) => ({ expression: t.expression, card: cardOf(t) })));
              setTicked(new Set());
            }}
          >
            Take {count(together.length)} {together.length === 1 ? "term" : "terms"}
          </Button>
        </div>
      )}
    </div>
  );
}

function Nothing({ source, good }: { source: TermSource; good: number }) {
  const why =
    good > 0
      ? "These works use no distinctive terms that the search does not have already."
      : source === "Kept"
        ? "Keep some works first (P in the list): their words are then offered here."
        : source === "Missed"
          ? "The search finds every kept work."
          : "Pick some works in the list, or open one.";
  return <p className="px-[18px] py-4 text-[13px] text-quiet">{why}</p>;
}
