import { useState } from "react";
import { Fault } from "../../../ui/Fault";
import { count, works } from "../../../ui/numbers";
import { Press } from "../../../ui/Press";
import { TextButton } from "../../../ui/TextButton";
import { without } from "../board/useBoard";
import { Refused } from "./Refused";
import { Trial } from "./Trial";
import type { TermsContext } from "./context";
import { RefuseButton } from "./RefuseButton";
import { useTermsAgainst, type TermAgainst } from "./useTerms";

/** Terms that mark what was set aside among the works in view, with what excluding them costs. */
export function ToExclude({ context }: { context: TermsContext }) {
  const against = useTermsAgainst(context.line);
  const data = against.data;
  return (
    <div className={against.isPlaceholderData ? "opacity-60" : ""} aria-busy={against.isFetching}>
      <p className="px-[18px] py-2 text-[12.5px] text-quiet">
        {data
          ? `Terms of the ${works(data.aside)} set aside here, against the others in view. Excluding one removes every work that has it.`
          : " "}
      </p>
      {against.error && (
        <div className="px-[18px]">
          <Fault error={against.error} />
        </div>
      )}
      {data?.terms.length === 0 && (
        <p className="px-[18px] py-4 text-[13px] text-quiet">
          {data.aside === 0
            ? "No work in view is set aside yet (X in the list)."
            : "The works set aside use no distinctive terms."}
        </p>
      )}
      <ul aria-label="Terms to exclude">
        {data?.terms.map((t) => (
          <AgainstRow key={t.text} term={t} aside={data.aside} context={context} />
        ))}
      </ul>
      {data && <Refused reviewId={context.line.reviewId} terms={data.refused} />}
    </div>
  );
}

function AgainstRow({ term, aside, context }: { term: TermAgainst; aside: number; context: TermsContext }) {
  const [isOpen, setOpen] = useState(false);
  const take = () => context.take([{ expression: term.expression, card: without }]);
  return (
    <li className="border-b border-soft px-[18px] py-1.5">
      <div className="grid grid-cols-[minmax(0,1fr)_62px] items-baseline gap-x-2">
        <Press
          aria-expanded={isOpen}
          onClick={() => setOpen(!isOpen)}
          title={`Show what it would remove: ${term.expression}`}
          className="truncate text-left font-serif text-[14.5px] font-semibold hover:underline"
        >
          {term.text}
        </Press>
        <b className="text-right text-[14px] text-aside" title="Works in view that excluding it removes">
          −{count(term.removes)}
        </b>
      </div>
      <div className="flex flex-wrap items-baseline justify-end gap-x-2 text-[12px] text-quiet">
        <span className="grow">
          in {count(term.aside)} of {count(aside)} set aside · {count(term.inView)} in view
        </span>
        {term.keptHit > 0 && <span className="font-semibold text-aside">removes {count(term.keptHit)} kept</span>}
        <span className="flex gap-2">
          <TextButton className="min-h-6" disabled={context.isTaking} onClick={take}>
            exclude
          </TextButton>
          <RefuseButton reviewId={context.line.reviewId} term={term.text} />
        </span>
      </div>
      {isOpen && (
        <div className="mt-1.5">
          <Trial context={context} expression={term.expression} card={without} onTake={take} />
        </div>
      )}
    </li>
  );
}
