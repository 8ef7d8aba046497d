import { memo } from "react";
import type { Arranged } from "./arrange";
import { arc } from "./links";

/** Of more works than this, arcs are so many that only faint ones show where they run together. */
const dense = 400;

/** The closest of what each work cites, and no other link: the bones of the set. */
export const StrongestLinks = memo(function StrongestLinks({ picture }: { picture: Arranged }) {
  const isDense = picture.at.size > dense;
  return (
    <g
      pointerEvents="none"
      fill="none"
      stroke="var(--past)"
      strokeWidth={isDense ? 0.7 : 1.1}
      strokeOpacity={isDense ? 0.3 : 0.6}
    >
      {[...picture.at.values()].map((mark) => {
        const to = mark.work.strongest === null ? undefined : picture.at.get(mark.work.strongest);
        return to && <path key={mark.of} data-strongest={mark.work.id} d={arc(mark, to, "over")} />;
      })}
    </g>
  );
});
