import { Tabs } from "radix-ui";
import { useState } from "react";
import type { Dto } from "../../../api/client";
import type { Decide } from "../../../set/decide/useDecisions";
import { AsideSheet } from "../../../set/decide/AsideSheet";
import { BackToList } from "../../../ui/BackToList";
import { TextButton } from "../../../ui/TextButton";
import type { StepAct } from "../../../set/useSet";
import type { TermsContext } from "./context";
import { SensesPart } from "./SensesPart";
import { ToAdd } from "./ToAdd";
import { ToExclude } from "./ToExclude";
import { UsedPart, type Asked } from "./UsedPart";
import { useTakeTerms, type Line } from "./useTerms";

export const termParts = ["add", "exclude", "senses", "used"] as const;
export type TermPart = (typeof termParts)[number];

const names: Record<TermPart, string> = { add: "To add", exclude: "To exclude", senses: "Senses", used: "Used here" };

/** Words for the search, in the place of the pane: the list stays in sight. */
export function TermsPane({
  line,
  cards,
  part,
  onPart,
  onLine,
  picked,
  workId,
  decide,
  takeStep,
  asked,
  openWork,
  close,
}: {
  line: Line;
  cards: readonly Dto<"BoardCardDto">[];
  part: TermPart;
  onPart: (part: TermPart) => void;
  onLine: (text: string) => void;
  picked: readonly number[];
  workId: number | null;
  decide: Decide;
  takeStep: (act: StepAct) => void;
  /** What the step asks for already; null while it is not known. */
  asked: Asked | null;
  openWork: (work: number) => void;
  close: () => void;
}) {
  const [before, setBefore] = useState<{ text: string; after: string } | null>(null);
  const [aside, setAside] = useState<number | null>(null);
  const takeTerms = useTakeTerms(line, (text) => {
    setBefore({ text: line.text, after: text });
    onLine(text);
  });
  const context: TermsContext = {
    line,
    cards,
    take: takeTerms.mutate,
    isTaking: takeTerms.isPending,
    decide,
    setAside,
  };
  return (
    <aside aria-label="Words" className="flex min-h-0 flex-col border-l border-line">
      <BackToList onBack={close} />
      <Tabs.Root
        value={part}
        onValueChange={(value) => onPart(value as TermPart)}
        className="flex min-h-0 flex-1 flex-col"
      >
        <div className="flex items-baseline gap-4 border-b border-line px-[18px] pt-2.5">
          <Tabs.List aria-label="Words" className="flex gap-4 text-[13px]">
            {termParts.map((p) => (
              <Tabs.Trigger
                key={p}
                value={p}
                className={`-mb-px border-b-2 border-transparent pb-1.5 text-quiet hover:text-ink
                  data-[state=active]:border-pine data-[state=active]:font-semibold data-[state=active]:text-ink`}
              >
                {names[p]}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <TextButton onClick={close} className="min-h-6 ml-auto text-[12.5px] text-quiet max-sm:hidden">
            close
          </TextButton>
        </div>
        {before?.after === line.text && (
          <p
            role="status"
            className="flex items-baseline gap-3 border-b border-soft bg-mist px-[18px] py-1.5 text-[12.5px]"
          >
            <span className="min-w-0 flex-1">The line has changed. Press Enter in it to search.</span>
            <TextButton
              className="min-h-6 font-semibold"
              onClick={() => {
                onLine(before.text);
                setBefore(null);
              }}
            >
              Undo
            </TextButton>
          </p>
        )}
        <Tabs.Content value="add" className="min-h-0 flex-1 overflow-y-auto outline-none" tabIndex={-1}>
          <ToAdd context={context} picked={picked} workId={workId} />
        </Tabs.Content>
        <Tabs.Content value="senses" className="min-h-0 flex-1 overflow-y-auto outline-none" tabIndex={-1}>
          <SensesPart reviewId={line.reviewId} stepId={line.stepId} take={takeStep} openWork={openWork} />
        </Tabs.Content>
        <Tabs.Content value="used" className="min-h-0 flex-1 overflow-y-auto outline-none" tabIndex={-1}>
          <UsedPart context={context} asked={asked} take={takeStep} />
        </Tabs.Content>
        <Tabs.Content value="exclude" className="min-h-0 flex-1 overflow-y-auto outline-none" tabIndex={-1}>
          <ToExclude context={context} />
        </Tabs.Content>
      </Tabs.Root>
      <AsideSheet
        open={aside !== null}
        close={() => setAside(null)}
        reviewId={line.reviewId}
        onReason={(reason) => {
          if (aside !== null) decide.one(aside, "SetAside", reason);
          setAside(null);
        }}
      />
    </aside>
  );
}
