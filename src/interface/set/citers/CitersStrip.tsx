import { useState } from "react";
import type { Dto } from "../../api/client";
import { barButton } from "../../ui/Button";
import { Press } from "../../ui/Press";
import { count } from "../../ui/numbers";
import type { StepAct } from "../useSet";
import { CitersSheet } from "./CitersSheet";
import { useStepCiters } from "./useCiters";

type State = NonNullable<Dto<"SearchStateDto">["citers"]>;

const choices: { self: State["self"]; label: string; of: (c: Dto<"CitersCountDto">) => number }[] = [
  { self: "With", label: "all", of: (c) => c.with },
  { self: "Without", label: "without self-citations", of: (c) => c.without },
  { self: "Only", label: "self-citations only", of: (c) => c.only },
];

/** Over a list of works that cite a name: whose citations they are, and self-citations apart. */
export function CitersStrip({
  reviewId,
  stepId,
  citers,
  take,
}: {
  reviewId: number;
  stepId: number;
  citers: State;
  take: (act: StepAct) => void;
}) {
  const [isOpen, setOpen] = useState(false);
  const { data: counts, isPlaceholderData } = useStepCiters(reviewId, stepId);
  const variants = citers.persons.length + citers.printed.length;
  return (
    <section
      aria-label="Who cites a name"
      className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-line bg-paper px-[18px] py-1.5 text-[13px]"
    >
      <span>
        What cites <b className="font-semibold">{citers.name}</b>
      </span>
      <span
        role="group"
        aria-label="Self-citations"
        className={`flex flex-wrap gap-1 ${isPlaceholderData ? "opacity-50" : ""}`}
      >
        {choices.map((c) => (
          <Press
            key={c.self}
            aria-pressed={citers.self === c.self}
            onClick={() => take({ kind: "Self", self: c.self })}
            className={`rounded-[4px] px-1.5 py-0.5 text-[12.5px] ${
              citers.self === c.self ? "outline-[1.5px] -outline-offset-1 outline-ink" : "hover:bg-soft"
            }`}
          >
            <b className="font-bold tabular-nums">{counts ? count(c.of(counts)) : "…"}</b>{" "}
            <span className="text-quiet">{c.label}</span>
          </Press>
        ))}
      </span>
      <Press className={`${barButton} ml-auto`} onClick={() => setOpen(true)}>
        {variants === 1 ? "1 variant" : `${count(variants)} variants`} of the name …
      </Press>
      {isOpen && <CitersSheet reviewId={reviewId} start={citers.name} ticked={citers} close={() => setOpen(false)} />}
    </section>
  );
}
