import { Popover } from "radix-ui";
import { useEffect, useState } from "react";
import { PopOver } from "../../ui/PopOver";
import type { Dto } from "../../api/client";
import { FacetValues, useFacetChoice } from "./FacetValues";
import { facetNames, narrowingSaid } from "./facets";
import type { Facet, Place, StepAct } from "../useSet";
import { Press } from "../../ui/Press";
import { TextButton } from "../../ui/TextButton";

/** How a chip looks. */
export const chip =
  "h-[26px] max-w-[190px] truncate rounded-md border bg-raised px-2.5 text-[12.5px] whitespace-nowrap " +
  "hover:border-ink data-[state=open]:border-pine";

const nothing = { values: [], excluded: [], each: [] };

const same = (a: readonly string[], b: readonly string[]) => a.length === b.length && a.every((v) => b.includes(v));

/**
 * One field as a chip with a pop-over: take or leave out values, with exact counts. Closing it makes the step; Escape
 * leaves all as it was.
 */
export function FacetChip({
  facet,
  place,
  narrowing,
  take,
  opened = false,
  onClosed,
}: {
  facet: Facet;
  place: Place;
  narrowing: Dto<"NarrowingDto"> | null;
  take: (act: StepAct) => void;
  /** Whether it opens by itself as soon as it stands there. */
  opened?: boolean;
  onClosed?: () => void;
}) {
  const [open, setOpen] = useState(false);
  const choice = useFacetChoice(nothing);
  const name = facetNames[facet];
  const begin = () => {
    choice.set(narrowing ?? nothing);
    setOpen(true);
  };
  useEffect(() => {
    if (opened) begin();
    // Once, when it is asked for.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [opened]);
  const close = (keep: boolean) => {
    setOpen(false);
    onClosed?.();
    const { values, excluded, each } = choice;
    const before = narrowing ?? nothing;
    if (keep && !(same(values, before.values) && same(excluded, before.excluded) && same(each, before.each)))
      take({ kind: "Narrow", facet, values, excluded, each });
  };
  const said = narrowing ? narrowingSaid(narrowing) : "";
  return (
    <Popover.Root open={open} onOpenChange={(next) => (next ? begin() : close(true))}>
      <Popover.Trigger
        className={`${chip} ${said ? "border-pine text-ink" : "border-edge/70 text-quiet"}`}
        title={said || undefined}
      >
        {said ? (
          <>
            <b className="font-semibold">{name}</b> {said}
          </>
        ) : (
          name
        )}
      </Popover.Trigger>
      <PopOver label={`Narrow by ${name.toLowerCase()}`} width={340} onEscape={() => close(false)}>
        <FacetValues reviewId={place.reviewId} stepId={place.stepId} facet={facet} choice={choice} enabled={open} />
        <div className="mt-2 flex justify-between border-t border-line pt-2">
          <TextButton className="text-[12.5px] text-quiet" onClick={() => choice.set(nothing)}>
            any
          </TextButton>
          <Press
            className="rounded-md bg-pine px-3 py-1 text-[12.5px] font-semibold text-onpine"
            onClick={() => close(true)}
          >
            Narrow
          </Press>
        </div>
      </PopOver>
    </Popover.Root>
  );
}
