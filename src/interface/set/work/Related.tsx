import type { Dto } from "../../api/client";
import { Part } from "./Part";

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
