import { Popover } from "radix-ui";
import { useState } from "react";
import { chip } from "../../set/narrow/FacetChip";
import type { StepAct } from "../../set/useSet";
import { Input } from "../../ui/Input";
import { PopOver } from "../../ui/PopOver";
import { TextButton } from "../../ui/TextButton";
import { count } from "../../ui/numbers";

/** Words near the place where a work cites a seed. Only gathered texts can be asked, so it says how many there are. */
export function WhereItCites({
  words,
  asked,
  of,
  take,
}: {
  words: string;
  /** How many works that cite have a text that was read. */
  asked: number;
  /** How many works cite. */
  of: number;
  take: (act: StepAct) => void;
}) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState(words);
  const go = (next: string) => {
    take({ kind: "WhereItCites", words: next });
    setTyped(next);
    setOpen(false);
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        className={`${chip} min-w-0 truncate ${words ? "border-pine text-ink" : "border-edge/70 text-quiet"}`}
      >
        {words ? (
          <>
            <b className="font-semibold">Where it cites</b> {words}
          </>
        ) : (
          "Where it cites"
        )}
      </Popover.Trigger>
      <PopOver label="Words where it cites" width={330}>
        <form
          onSubmit={(e) => {
            e.preventDefault();
            if (typed.trim() !== "") go(typed.trim());
          }}
        >
          <label className="mb-1 block text-[12.5px] font-semibold" htmlFor="where-it-cites">
            Only works that say, near the citation
          </label>
          <Input
            id="where-it-cites"
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            placeholder='disagree* OR "in contrast"'
            spellCheck={false}
            className="h-8 w-full text-[13px]"
          />
        </form>
        <p className="mt-2 text-[12.5px] text-quiet">
          Looks in the sentence that cites and the ones beside it, in gathered texts: {count(asked)} of the {count(of)}{" "}
          works {asked === 1 ? "has one" : "have one"} that was read.
        </p>
        {words && (
          <p className="mt-2 flex justify-between gap-3">
            <span className="truncate">{words}</span>
            <TextButton className="text-[12.5px] text-quiet" onClick={() => go("")}>
              remove
            </TextButton>
          </p>
        )}
      </PopOver>
    </Popover.Root>
  );
}
