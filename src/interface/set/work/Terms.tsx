import type { Dto } from "../../api/client";
import { Marked } from "../../ui/Marked";
import type { Ask } from "../useAsk";
import { AskFor } from "./AskFor";
import { Part } from "./Part";

/** Terms of a work, each of which can be searched among keywords and controlled terms. */
export function Terms({
  title,
  field,
  terms,
  ask,
}: {
  title: string;
  field: string;
  terms: Dto<"WorkDto">["keywords"];
  ask: Ask;
}) {
  if (terms.length === 0) return null;
  return (
    <Part title={title}>
      <p data-field={field} className="flex flex-wrap gap-x-3 gap-y-[7px]">
        {terms.map((k) => (
          <AskFor
            key={k.text}
            expression={`keywords:"${k.text}"`}
            ask={ask}
            title="Among keywords and controlled terms …"
            className="decoration-dotted"
          >
            <Marked text={k} />
          </AskFor>
        ))}
      </p>
    </Part>
  );
}
