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
