import type { Dto } from "../../api/client";
import { Part } from "./Part";

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
