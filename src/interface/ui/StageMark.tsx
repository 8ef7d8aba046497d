import type { Dto } from "../api/client";

type Stage = Dto<"WorkRowDto">["stage"];

/** What stages are called. */
export const stageWords: Record<Stage, string> = { Found: "found", Kept: "kept", SetAside: "set aside" };

/** Where a work stands, as a shape and a word for those who do not see it: kept is a pennant, set aside a cross, found an open ring. */
export function StageMark({ stage }: { stage: Stage }) {
  return (
    <svg
      width="12"
      height="13"
      viewBox="0 0 12 13"
      role="img"
      aria-label={stageWords[stage]}
      className="block shrink-0"
    >
      {stage === "Kept" ? (
        <path d="M2 1h8v11L6 8.6 2 12z" fill="var(--kept)" />
      ) : stage === "SetAside" ? (
        <path d="M2 2.5l8 8M10 2.5l-8 8" stroke="var(--aside)" strokeWidth="1.8" strokeLinecap="round" />
      ) : (
        <circle cx="6" cy="6.5" r="3" fill="none" stroke="var(--edge)" strokeWidth="1.3" />
      )}
    </svg>
  );
}
