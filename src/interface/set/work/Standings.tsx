import type { Dto } from "../../api/client";
import { count, ordinal } from "../../ui/numbers";
import { Part } from "./Part";

/** Where the journal stands in its subject categories, with the numbers it comes from. */
export function Standings({ of }: { of: readonly Dto<"StandingDto">[] }) {
  if (of.length === 0) return null;
  return (
    <Part title="Journal ranking">
      {of.map((s) => (
        <p key={s.category}>
          {s.quartile > 0 ? (
            <>
              <b className="font-semibold">quartile {s.quartile}</b> in {s.category}: {ordinal(s.rank)} of {s.ranked}{" "}
              <span className="text-quiet">
                · {s.ratio.toFixed(2)} citations per item ({count(s.citations)} in {s.year} to {count(s.items)} articles
                and reviews of the five years before, counted here)
              </span>
            </>
          ) : (
            <span className="text-quiet">
              no quartile in {s.category}: {s.whyNot}
            </span>
          )}
        </p>
      ))}
    </Part>
  );
}
