import { useState } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Input } from "../../ui/Input";
import { Press } from "../../ui/Press";
import { TextButton } from "../../ui/TextButton";
import { works } from "../../ui/numbers";
import { NewEntrySheet } from "../entry/NewEntrySheet";
import { useReadPrinted } from "../entry/useEntries";
import { WhyThis } from "./WhyThis";
import { useChoices, useResolve, type CitedReference } from "./useResolutions";

/** The works that a reference may mean; one is chosen, looked for in other words, or made as a custom entry. */
export function ChooseWork({
  reviewId,
  reference,
  close,
}: {
  reviewId: number;
  reference: CitedReference;
  close: () => void;
}) {
  const [typed, setTyped] = useState("");
  const [asked, setAsked] = useState<string | null>(null);
  const choices = useChoices(reviewId, reference.listed, asked);
  const resolve = useResolve(reviewId);
  const readPrinted = useReadPrinted();
  const { data } = choices;
  // Some databases give no more of a reference than its DOI.
  const printed = reference.text || (reference.doi ?? "");
  const candidates = (data?.found.candidates ?? []).filter((c) => c.workId !== reference.workId);
  const choose = (workId: number) => resolve.mutate({ listed: reference.listed, workId }, { onSuccess: close });
  return (
    <div className="mt-2 rounded-md border border-line bg-raised px-3 py-2 text-[13px]">
      {choices.error && <Fault error={choices.error} />}
      {!data && !choices.error && <p className="text-quiet">Looking …</p>}
      {data && candidates.length === 0 && (
        <p className="text-quiet">
          {reference.workId !== null && asked === null
            ? "No other record resembles this reference."
            : "No record resembles it."}{" "}
          Type its title or DOI, or make it a custom entry.
        </p>
      )}
      <ul aria-label="Works it may mean">
        {candidates.map((c) => (
          <li key={c.workId} className="border-b border-soft last:border-0">
            <Press
              className={`grid w-full grid-cols-[minmax(0,1fr)_auto] items-baseline gap-3 rounded-sm px-1 py-1.5 text-left
                hover:bg-soft disabled:opacity-50`}
              disabled={resolve.isPending}
              onClick={() => choose(c.workId)}
            >
              <span>
                <span className="font-serif text-[14.5px] font-semibold">{c.title}</span>{" "}
                <span className="text-quiet">{named(c)}</span>
                <span className="block text-[12px] text-quiet">
                  <WhyThis work={c} />
                </span>
              </span>
              <span className="text-[12.5px] whitespace-nowrap underline decoration-line underline-offset-2">
                This is it
              </span>
            </Press>
          </li>
        ))}
      </ul>
      <form
        className="mt-2 flex flex-wrap items-center gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          setAsked(typed.trim() === "" ? null : typed.trim());
        }}
      >
        <Input
          aria-label="Look for its title, DOI or corrected reference"
          placeholder="Its title, DOI, or the reference corrected"
          className="h-8 min-w-0 flex-1"
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          onFocus={() => typed === "" && setTyped(printed)}
        />
        <Button type="submit" disabled={choices.isFetching}>
          Look
        </Button>
        <TextButton
          className="text-[12.5px]"
          disabled={readPrinted.isPending}
          onClick={() => readPrinted.mutate([asked ?? printed])}
        >
          Make it a custom entry
        </TextButton>
      </form>
      {readPrinted.error && <Fault error={readPrinted.error} />}
      {data && (
        <p className="mt-1.5 text-[12px] text-quiet">
          What you choose applies for everyone on this Zendle, in all{" "}
          {data.printed === 1
            ? "works with this reference: this one so far"
            : `${works(data.printed)} with this reference`}
          . It can be undone.
        </p>
      )}
      {readPrinted.data?.[0] && (
        <NewEntrySheet reviewId={reviewId} start={readPrinted.data[0]} close={readPrinted.reset} onAdded={choose} />
      )}
    </div>
  );
}

const named = (c: Dto<"PastedCandidateDto">) => [c.person, c.year, c.venue].filter(Boolean).join(", ");
