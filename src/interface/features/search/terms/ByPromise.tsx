import type { ReactNode } from "react";
import type { Dto } from "../../../api/client";
import type { OfferedTerm } from "./useTerms";

/** Offered terms by where they come from and what they promise; those that bring little come last. */
export function ByPromise({
  offered,
  row,
}: {
  offered: Dto<"OfferedTermsDto">;
  /** An offered term as a row. */
  row: (term: OfferedTerm) => ReactNode;
}) {
  const { abbreviated, ofVocabularies, terms } = offered;
  const promising = terms.filter((t) => t.isPromising);
  const databases = new Set(ofVocabularies.map((t) => t.tie?.database));
  return (
    <>
      <Terms
        label="Abbreviations"
        head="abbreviations and long forms, as explained in the works"
        terms={abbreviated}
        row={row}
      />
      <Terms
        label="From vocabularies"
        head={`from the vocabulary of ${[...databases].join(" and ")}`}
        terms={ofVocabularies}
        row={row}
      />
      <Terms label="Promising terms" terms={promising} row={row} />
      <Terms
        label="Other terms"
        head={
          promising.length > 0
            ? "these add few works, or few that look like the good ones"
            : "no term adds many works that look like the good ones"
        }
        terms={terms.filter((t) => !t.isPromising)}
        row={row}
      />
    </>
  );
}

/** Some of them under a head; nothing where there are none. */
function Terms({
  label,
  head,
  terms,
  row,
}: {
  label: string;
  head?: string;
  terms: readonly OfferedTerm[];
  row: (term: OfferedTerm) => ReactNode;
}) {
  if (terms.length === 0) return null;
  return (
    <>
      {head && <TermsHead>{head}</TermsHead>}
      <ul aria-label={label}>{terms.map(row)}</ul>
    </>
  );
}

/** What stands over some terms. */
export function TermsHead({ children }: { children: ReactNode }) {
  return <h3 className="border-y border-line bg-paper px-[18px] py-1 text-[11.5px] text-faint">{children}</h3>;
}
