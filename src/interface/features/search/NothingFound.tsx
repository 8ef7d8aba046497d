import { Button } from "../../ui/Button";
import type { Place } from "./useSearch";

/** What stands in place of an empty list: why it is empty, and the next useful act. */
export function NothingFound({ place, onSearchNew }: { place: Place; onSearchNew: () => void }) {
  return (
    <div className="p-8">
      <p className="mb-1 font-serif text-[17px]">
        {place.hideJudged ? "Every work in this set has been judged." : "No work matches all of this."}
      </p>
      <p className="mb-4 max-w-[60ch] text-quiet">
        {place.hideJudged
          ? "Show the judged ones, or go on with another search."
          : "The board (B) shows what each part finds by itself; the part that finds least is the one " +
            "to loosen. Any step of the path can be gone back to."}
      </p>
      <div className="flex gap-2">
        {place.hideJudged ? (
          <Button onClick={() => place.change({ judged: null })}>Show the judged ones</Button>
        ) : (
          <Button onClick={() => window.history.back()}>Back to the step before</Button>
        )}
        <Button onClick={onSearchNew}>A new search</Button>
      </div>
    </div>
  );
}
