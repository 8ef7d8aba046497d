import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import type { Dto } from "../../api/client";
import { MenuFrame, MenuItem } from "../../ui/Menu";
import { FacetChip, chip } from "./FacetChip";
import { chipFields as all, facetNames } from "./facets";
import type { Facet, Place, StepAct } from "../useSet";

/** The fields a set can be narrowed by, as chips: those used most, those in use, and the rest behind one more. */
export function FacetChips({
  often,
  place,
  narrowings,
  take,
}: {
  /** How many of the fields stand there at once. */
  often: number;
  place: Place;
  narrowings: readonly Dto<"NarrowingDto">[];
  take: (act: StepAct) => void;
}) {
  const [asked, setAsked] = useState<Facet | null>(null);
  const isShown = (facet: Facet, i: number) =>
    i < often || facet === asked || narrowings.some((n) => n.facet === facet);
  const more = all.filter((facet, i) => !isShown(facet, i));
  return (
    <>
      {all.filter(isShown).map((facet) => (
        <FacetChip
          key={facet}
          facet={facet}
          place={place}
          narrowing={narrowings.find((n) => n.facet === facet) ?? null}
          take={take}
          opened={facet === asked}
          onClosed={() => setAsked(null)}
        />
      ))}
      {more.length > 0 && (
        <DropdownMenu.Root>
          <DropdownMenu.Trigger className={`${chip} shrink-0 border-edge/70 text-quiet`}>more</DropdownMenu.Trigger>
          <MenuFrame width={170}>
            {more.map((facet) => (
              // The menu gives the focus back first; then the field's own pop-over may take it.
              <MenuItem key={facet} onSelect={() => setTimeout(() => setAsked(facet))}>
                {facetNames[facet]}
              </MenuItem>
            ))}
          </MenuFrame>
        </DropdownMenu.Root>
      )}
    </>
  );
}
