import type { Dto } from "../../api/client";
import { Part } from "./Part";

/** The chapters or parts of a work, as its records list them. */
export function Contents({ of }: { of: Dto<"WorkDto">["contents"] }) {
  if (of.length === 0) return null;
  return (
    <Part title="Contents">
      <ol className="list-inside list-decimal font-serif text-[13px]">
        {of.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ol>
    </Part>
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

/** Other works that its records name, with what they are to it. */
export function Related({ to }: { to: Dto<"WorkDto">["related"] }) {
  if (to.length === 0) return null;
  return (
    <Part title="Related items">
      <ul>
        {to.map((r) => (
          <li key={r.doi ?? r.title}>
            <span className="text-quiet">{ties[r.kind] ?? r.kind}</span>{" "}
            <span className="font-serif text-[13px]">{r.title ?? r.doi}</span>
          </li>
        ))}
      </ul>
    </Part>
  );
}

/** Identifiers, publisher, subjects and funders in one line. */
export function Identifiers({ of: work }: { of: Dto<"WorkDto"> }) {
  return (
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
  );
}
