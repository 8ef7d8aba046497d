import { useState } from "react";
import { count } from "../../../ui/numbers";
import { TextButton } from "../../../ui/TextButton";
import { useRefuse, type RefusedTerm } from "./useTerms";

/** Terms that are not offered any more in this review, and the way to have them back. */
export function Refused({ reviewId, terms }: { reviewId: number; terms: readonly RefusedTerm[] }) {
  const [isOpen, setOpen] = useState(false);
  const refuse = useRefuse(reviewId);
  if (terms.length === 0) return null;
  return (
    <section aria-label="Refused terms" className="px-[18px] py-2 text-[12.5px] text-quiet">
      <TextButton className="min-h-6" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        {count(terms.length)} refused {terms.length === 1 ? "term" : "terms"}
      </TextButton>
      {isOpen && (
        <ul className="mt-1">
          {terms.map((t) => (
            <li key={t.text} className="flex items-baseline gap-2 py-0.5">
              <span className="min-w-0 flex-1 truncate">
                <span className="font-serif text-[13.5px] text-ink">{t.text}</span> by {t.by}
              </span>
              <TextButton className="min-h-6" onClick={() => refuse.mutate({ text: t.text, isRefused: false })}>
                offer again
              </TextButton>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
