import { Input } from "../../ui/Input";
import { count } from "../../ui/numbers";

/** What finding found. */
export interface Found {
  at: number;
  total: number;
  pending: boolean;
}

/** Finds words in a text: Enter goes to the next, Shift Enter to the one before. */
export function FindIn({
  inputRef,
  words,
  onWords,
  onNext,
  found,
}: {
  inputRef: React.RefObject<HTMLInputElement | null>;
  words: string;
  onWords: (words: string) => void;
  onNext: (back: boolean) => void;
  found: Found | null;
}) {
  return (
    <form
      role="search"
      className="flex min-w-0 flex-1 items-center gap-2 max-sm:order-last max-sm:basis-full"
      onSubmit={(e) => {
        e.preventDefault();
        onNext(false);
      }}
    >
      <Input
        ref={inputRef}
        value={words}
        onChange={(e) => onWords(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === "Enter" && e.shiftKey) {
            e.preventDefault();
            onNext(true);
          }
        }}
        aria-label="Find in the text"
        placeholder="Find in the text ( / )"
        spellCheck={false}
        className="h-7 max-w-[260px] min-w-[88px] flex-1 max-sm:max-w-none text-[13px]"
      />
      {words !== "" && found && (
        <span role="status" className="text-[12.5px] whitespace-nowrap text-quiet">
          {found.total === 0 ? (
            found.pending ? (
              "…"
            ) : (
              "not found"
            )
          ) : (
            <>
              <b className="text-ink">{count(found.at)}</b> of {count(found.total)}
            </>
          )}
        </span>
      )}
    </form>
  );
}
