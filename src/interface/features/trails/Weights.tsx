import { Popover, Slider } from "radix-ui";
import { useState } from "react";
import type { Dto } from "../../api/client";
import { useWeights, type NeighbourKind } from "../../set/useTrail";
import { PopOver } from "../../ui/PopOver";
import { TextButton } from "../../ui/TextButton";
import { barButton } from "../../ui/Button";
import { kindName, kinds as allKinds } from "../../set/neighbourWords";

type Of = Dto<"NeighbourWeights">;

const fields: Record<NeighbourKind, keyof Of> = {
  SharedReferences: "sharedReferences",
  CitedTogether: "citedTogether",
  SharedTerms: "sharedTerms",
  SharedPeople: "sharedPeople",
  Tied: "tied",
};
const most = 10;

/** What each reason weighs in the joined order, to be moved; the review keeps it. */
export function Weights({
  reviewId,
  of: { weights, usualWeights },
  kinds,
  isRound = false,
}: {
  reviewId: number;
  of: Pick<Dto<"NeighboursDto">, "weights" | "usualWeights">;
  /** The reasons that are asked for. */
  kinds: readonly NeighbourKind[];
  /** Whether ties to the seeds are a reason as well. */
  isRound?: boolean;
}) {
  const save = useWeights(reviewId);
  const [moved, setMoved] = useState<Of | null>(null);
  const now = moved ?? weights;
  const set = (next: Of) => {
    setMoved(next);
    save.mutate(next, { onSettled: () => setMoved(null) });
  };
  const others = (kind: NeighbourKind) => allKinds.filter((k) => k !== kind).every((k) => now[fields[k]] === 0);
  if (kinds.length < 2) return null;
  return (
    <Popover.Root>
      <Popover.Trigger className={barButton}>weights</Popover.Trigger>
      <PopOver label="Weights of the reasons" width={320} align="end">
        <p className="mb-2 text-[12.5px] text-quiet">
          Each reason ranks the works on its own. The joined order combines these ranks, weighted as you set here. The
          weights are saved with the review.
        </p>
        {(isRound ? ([...allKinds, "Tied"] as const) : allKinds).map((kind) => (
          <div key={kind} className="grid grid-cols-[118px_minmax(0,1fr)_22px] items-center gap-2 py-1 text-[13px]">
            <span id={`weight-${kind}`} className={kinds.includes(kind) || kind === "Tied" ? "" : "text-faint"}>
              {kindName[kind]}
            </span>
            <Slider.Root
              min={others(kind) ? 1 : 0}
              max={most}
              step={1}
              value={[now[fields[kind]]]}
              onValueChange={([v]) => setMoved({ ...now, [fields[kind]]: v ?? 0 })}
              onValueCommit={([v]) => set({ ...now, [fields[kind]]: v ?? 0 })}
              className="relative flex h-6 touch-none items-center select-none"
            >
              <Slider.Track className="relative h-[4px] grow rounded-full bg-edge/40">
                <Slider.Range className="absolute h-full rounded-full bg-pine" />
              </Slider.Track>
              <Slider.Thumb
                aria-labelledby={`weight-${kind}`}
                className="block h-4 w-4 rounded-full border-2 border-pine bg-raised"
              />
            </Slider.Root>
            <b className="text-right font-bold">{now[fields[kind]]}</b>
          </div>
        ))}
        <p className="mt-1 text-right text-[12.5px]">
          <TextButton onClick={() => set(usualWeights)}>reset the weights</TextButton>
        </p>
      </PopOver>
    </Popover.Root>
  );
}
