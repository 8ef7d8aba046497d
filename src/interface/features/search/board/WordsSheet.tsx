import { useState } from "react";
import { Button } from "../../../ui/Button";
import { Fault } from "../../../ui/Fault";
import { Sheet } from "../../../ui/Sheet";
import { count, works } from "../../../ui/numbers";
import { useTermWords } from "./useTermWords";

/** A truncated term with its words laid open: those that are not meant are ticked out, and the term is written anew. */
export function WordsSheet({
  reviewId,
  stepId,
  term,
  scope,
  onTake,
  close,
}: {
  reviewId: number;
  stepId: number;
  term: string;
  scope: string;
  /** Takes terms joined by OR in the place of the term. */
  onTake: (text: string) => void;
  close: () => void;
}) {
  const [notMeant, setNotMeant] = useState<readonly string[]>([]);
  const words = useTermWords(reviewId, { stepId, term, scope, notMeant });
  const data = words.data;
  const flip = (word: string) =>
    setNotMeant((list) => (list.includes(word) ? list.filter((w) => w !== word) : [...list, word]));
  return (
    <Sheet
      open
      onOpenChange={close}
      width={600}
      title={`What ${term} stands for`}
      hint="Untick the words you do not want; the term is rewritten without them."
    >
      {words.error && <Fault error={words.error} />}
      {data && (
        <>
          <p className="mb-2 text-[12.5px] text-quiet">
            {count(data.total)} {data.total === 1 ? "word" : "words"}, {works(data.works)} together
            {data.words.length < data.total && `; the ${count(data.words.length)} most frequent are shown`}
          </p>
          <ul
            aria-label="Words"
            className="grid max-h-[42vh] grid-cols-2 gap-x-5 overflow-y-auto border-y border-line bg-raised px-2 py-1"
          >
            {data.words.map((w) => {
              const out = notMeant.includes(w.word);
              return (
                <li key={w.word}>
                  <label className="flex h-[26px] items-center gap-2 text-[13px]">
                    <input
                      type="checkbox"
                      checked={!out}
                      onChange={() => flip(w.word)}
                      className="accent-[var(--pine)]"
                    />
                    <span className={`min-w-0 flex-1 truncate ${out ? "text-aside line-through" : ""}`}>
                      {w.written ?? w.word}
                    </span>
                    <span className="text-quiet">{count(w.works)}</span>
                  </label>
                </li>
              );
            })}
          </ul>
          <div className="mt-3 flex items-center justify-between gap-4">
            <p className="min-w-0 text-[13px]" role="status">
              {data.without === "" ? (
                "No word is left."
              ) : notMeant.length === 0 ? (
                <span className="text-quiet">include all words</span>
              ) : (
                <>
                  <span className="line-clamp-2 font-semibold">{data.without}</span>
                  <span className="text-quiet">
                    {works(data.worksWithout)} in place of {count(data.works)}
                  </span>
                </>
              )}
            </p>
            <Button
              kind="primary"
              disabled={notMeant.length === 0 || data.without === "" || words.isPlaceholderData}
              onClick={() => {
                onTake(data.without);
                close();
              }}
            >
              Apply
            </Button>
          </div>
        </>
      )}
    </Sheet>
  );
}
