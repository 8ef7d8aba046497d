import { Fragment, type ReactNode } from "react";
import type { Dto } from "../../../api/client";
import { count } from "../../../ui/numbers";
import { TermsHead } from "./ByPromise";
import type { TermsContext } from "./context";
import type { OfferedTerm } from "./useTerms";

type WordInUse = Dto<"WordInUseDto">;

/** A word of a concept in the order of time: one that the search has, or one that is offered. */
type Entry = { from: number; to: number } & ({ word: WordInUse } | { term: OfferedTerm });

/** A concept's words, offered ones among those it has, the ones used first foremost; those of no year come last. */
const inOrder = (words: readonly WordInUse[], offered: readonly OfferedTerm[]): Entry[] =>
  [
    ...words.map((word) => ({ from: word.from || Infinity, to: word.to, word })),
    ...offered.map((term) => ({ from: term.from, to: term.to, term })),
  ].sort((a, b) => (a.from === b.from ? a.to - b.to : a.from - b.from));

/**
 * Older and newer words for one thing: for each concept the offered terms that are clearly older or newer than its
 * words, with those words between them, in the order of the years in which works use them.
 */
export function ByAge({
  context,
  inUse,
  offered,
  row,
}: {
  context: TermsContext;
  inUse: readonly Dto<"ConceptWordsDto">[];
  /** All that is offered; terms of about the same time as their concept are left out. */
  offered: readonly OfferedTerm[];
  /** An offered term as a row. */
  row: (term: OfferedTerm) => ReactNode;
}) {
  // A vocabulary and the works may offer the same term.
  const aged = [...new Map(offered.filter((t) => t.age !== "Same").map((t) => [t.text, t])).values()];
  const concepts = inUse
    .map(({ card, words }) => ({ card, words, terms: aged.filter((t) => t.card === card) }))
    .filter(({ terms }) => terms.length > 0);
  if (concepts.length === 0)
    return (
      <p className="px-[18px] py-4 text-[13px] text-quiet">
        None of the offered terms is clearly older or newer than the words of its concept: works of the same years use
        them.
      </p>
    );
  return concepts.map(({ card, words, terms }) => (
    <Fragment key={card}>
      <TermsHead>{context.cards[card]?.letter ?? ""}, from the oldest word to the newest</TermsHead>
      <ol aria-label={`Words of ${context.cards[card]?.letter ?? ""} by their years`}>
        {inOrder(words, terms).map((e) =>
          "term" in e ? row(e.term) : <InUse key={`has ${e.word.text}`} word={e.word} />,
        )}
      </ol>
    </Fragment>
  ));
}

/** A word that the search has. */
function InUse({ word }: { word: WordInUse }) {
  return (
    <li className="border-b border-soft bg-mist px-[18px] py-1.5">
      <p className="truncate pl-6 font-serif text-[14.5px]">{word.text}</p>
      <p className="pl-6 text-[12px] text-quiet">
        in the search · {count(word.works)} in all
        {word.from > 0 && ` · ${word.from}–${word.to}`}
      </p>
    </li>
  );
}
