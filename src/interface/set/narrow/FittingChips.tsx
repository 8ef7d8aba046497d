import { useRef } from "react";
import type { Dto } from "../../api/client";
import { useSize } from "../../ui/useSize";
import { FacetChips } from "./FacetChips";
import { InsideChip } from "./InsideChip";
import { chipFields, facetNames } from "./facets";
import type { Facet, Place, StepAct } from "../useSet";

const letter = 6.9;
const edges = 30;
const inUse = 196;
const insideChip = 112;
const moreChip = 62;

/** How many of the fields have room as chips in a line so wide, beside those in use and what stands there always. */
function fitting(width: number, narrowings: readonly { facet: Facet | null }[], hasInside: boolean): number {
  const isUsed = (facet: Facet) => narrowings.some((n) => n.facet === facet);
  let left = width - (hasInside ? inUse : insideChip) - moreChip - inUse * chipFields.filter(isUsed).length;
  let fit = 0;
  for (const facet of chipFields) {
    if (!isUsed(facet)) left -= facetNames[facet].length * letter + edges;
    if (left < 0) break;
    fit++;
  }
  return fit;
}

/** The fields to narrow by and the words inside, in one line: as many as there is room for, the rest behind "more". */
export function FittingChips({
  place,
  state,
  take,
  wraps = false,
}: {
  place: Place;
  state: Dto<"SearchStateDto">;
  take: (act: StepAct) => void;
  /** Whether they may take as many lines as they need: all of them stand there then. */
  wraps?: boolean;
}) {
  const box = useRef<HTMLDivElement>(null);
  const width = useSize(box)?.width ?? 480;
  const { narrowings, inside } = state;
  return (
    <div ref={box} className={`flex min-w-0 flex-1 gap-1.5 ${wraps ? "flex-wrap" : "justify-start overflow-hidden"}`}>
      <FacetChips
        often={wraps ? chipFields.length : fitting(width, narrowings, inside.length > 0)}
        place={place}
        narrowings={narrowings}
        take={take}
      />
      <InsideChip inside={inside} take={take} />
    </div>
  );
}
