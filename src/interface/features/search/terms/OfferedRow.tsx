import { useState } from "react";
import { count } from "../../../ui/numbers";
import { Press } from "../../../ui/Press";
import { TextButton } from "../../../ui/TextButton";
import { CardChoice } from "./CardChoice";
import { Trial } from "./Trial";
import type { TermsContext } from "./context";
import { RefuseButton } from "./RefuseButton";
import { useTrial, type OfferedTerm } from "./useTerms";

const alike =
  "Added works that resemble the good ones: as similar as nine in ten of the good ones are, " +
  "or half as similar and linked to one by a citation";

const ages = {
  Older: "In three of four comparisons, a work with this term is older than a work with the other words of the concept",
  Newer: "In three of four comparisons, a work with this term is newer than a work with the other words of the concept",
};

/** What a term does to the set in view. */
const change = (adds: number, removes: number) =>
  adds > 0 ? `+${count(adds)}` : removes > 0 ? `−${count(removes)}` : "0";

/** Why it is offered. */
function why(term: OfferedTerm, good: number): string {
  if (term.standsFor !== null) return `short for ${term.standsFor}`;
  if (term.shortFor !== null) return `what ${term.shortFor} stands for`;
  if (term.tie !== null) return `${relations[term.tie.relation]} “${term.tie.of}”`;
  return `in ${count(term.good)} of ${count(good)}`;
}

const relations = {
  SameIdea: "same idea as",
  Narrower: "narrower than",
  Broader: "broader than",
};

/** An offered term: what it marks, what it would bring, and the works it alone would bring when it is opened. */
export function OfferedRow({
  term,
  good,
  card,
  onCard,
  isTicked,
  onTick,
  context,
}: {
  term: OfferedTerm;
  good: number;
  card: number;
  onCard: (card: number) => void;
  isTicked: boolean;
  onTick: () => void;
  context: TermsContext;
}) {
  const [isOpen, setOpen] = useState(false);
  const isMoved = card !== term.card;
  const moved = useTrial(context.line, isMoved ? term.expression : "", card).data;
  return (
    <li className="border-b border-soft px-[18px] py-1.5">
      <div className="grid grid-cols-[16px_minmax(0,1fr)_auto_62px] items-baseline gap-x-2">
        <input
          type="checkbox"
          checked={isTicked}
          onChange={onTick}
          aria-label={`Take ${term.text} with others`}
          className="h-3.5 w-3.5 translate-y-0.5 accent-[var(--pine)]"
        />
        <Press
          aria-expanded={isOpen}
          onClick={() => setOpen(!isOpen)}
          title={`Show what it would bring: ${term.expression}`}
          className="truncate text-left font-serif text-[14.5px] font-semibold hover:underline"
        >
          {term.text}
        </Press>
        <CardChoice context={context} card={card} onCard={onCard} label={`Concept of ${term.text}`} />
        <b className="text-right text-[14px]" title="Works it would add to the set in view, or remove from it">
          {isMoved
            ? moved && change(moved.adds, moved.removes)
            : card === context.cards.length
              ? "" // a further concept narrows; opened, the term shows to what
              : change(term.adds, 0)}
        </b>
      </div>
      <div className="flex flex-wrap items-baseline justify-end gap-x-2 pl-6 text-[12px] text-quiet">
        <span className="grow">
          {why(term, good)} · {count(term.all)} in all
          {term.from > 0 && ` · ${term.from}–${term.to}`}
          {term.age !== "Same" && (
            <span title={ages[term.age]}>{term.age === "Older" ? ", an older word" : ", a newer word"}</span>
          )}
        </span>
        {!isMoved && term.adds > 0 && <span title={alike}>{count(term.alike)} look alike</span>}
        <span className="flex gap-2">
          <TextButton
            className="min-h-6"
            disabled={context.isTaking}
            onClick={() => context.take([{ expression: term.expression, card }])}
          >
            take
          </TextButton>
          <RefuseButton reviewId={context.line.reviewId} term={term.text} />
        </span>
      </div>
      {(isOpen || isMoved) && (
        <div className="mt-1.5 pl-6">
          <Trial
            context={context}
            expression={term.expression}
            card={card}
            onTake={() => context.take([{ expression: term.expression, card }])}
          />
        </div>
      )}
    </li>
  );
}
