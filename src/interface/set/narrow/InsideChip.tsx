import { Popover } from "radix-ui";
import { useState } from "react";
import { PopOver } from "../../ui/PopOver";
import { chip } from "./FacetChip";
import type { StepAct } from "../useSet";
import { TextButton } from "../../ui/TextButton";
import { Input } from "../../ui/Input";

/** Words searched only inside the set in view. Several hold together; each can be taken out again. */
export function InsideChip({ inside, take }: { inside: readonly string[]; take: (act: StepAct) => void }) {
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState("");
  const [inTexts, setInTexts] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        className={`${chip} shrink-0 ${inside.length > 0 ? "border-pine text-ink" : "border-edge/70 text-quiet"}`}
      >
        {inside.length > 0 ? (
          <>
            <b className="font-semibold">Words inside</b> {inside.join(", ")}
          </>
        ) : (
          "Words inside"
        )}
      </Popover.Trigger>
      <PopOver label="Search inside the set" width={320}>
        <form
          onSubmit={(e) => {
            e.preventDefault();
            if (words.trim() === "") return;
            const next = inTexts ? `text:(${words.trim()})` : words.trim();
            take({ kind: "Inside", words: [...inside, next] });
            setWords("");
            setOpen(false);
          }}
        >
          <label className="mb-1 block text-[12.5px] font-semibold" htmlFor="inside">
            Only works with
          </label>
          <Input
            id="inside"
            value={words}
            onChange={(e) => setWords(e.target.value)}
            placeholder="field*"
            spellCheck={false}
            className="h-8 w-full text-[13px]"
          />
          <label className="mt-2 flex items-center gap-1.5 text-[12.5px]">
            <input
              type="checkbox"
              checked={inTexts}
              onChange={(e) => setInTexts(e.target.checked)}
              className="accent-[var(--pine)]"
            />
            in the gathered full texts only
          </label>
        </form>
        {inside.map((w) => (
          <p key={w} className="mt-2 flex justify-between gap-3">
            <span className="truncate">{w}</span>
            <TextButton
              className="text-[12.5px] text-quiet"
              onClick={() => take({ kind: "Inside", words: inside.filter((x) => x !== w) })}
            >
              remove
            </TextButton>
          </p>
        ))}
      </PopOver>
    </Popover.Root>
  );
}
