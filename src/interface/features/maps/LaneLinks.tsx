import { memo } from "react";
import { count } from "../../ui/numbers";
import type { Arranged } from "./arrange";
import type { MapOf } from "./useMap";

const widest = 22;
const narrowest = 1.2;

/** How densely lanes cite each other: the broader, the more; the number stands on those that are broad enough. */
/** A point of a path, to a tenth of a pixel. */
const at = (x: number, y: number) => `${x.toFixed(1)} ${y.toFixed(1)}`;

export const LaneLinks = memo(function LaneLinks({ map, picture }: { map: MapOf; picture: Arranged }) {
  const { flows } = picture;
  const most = flows.at(-1)?.links ?? 1;
  const name = (lane: number) => picture.lanes.find((l) => l.of === lane)?.label ?? map.lanes[lane]?.label ?? "";
  return (
    <g pointerEvents="none">
      {flows.map((f) => {
        const broad = narrowest + (widest - narrowest) * Math.sqrt(f.links / most);
        const within = f.citing === f.cited;
        const lift = within ? -34 : 0;
        const bend = (f.from.x + f.to.x) / 2;
        return (
          <path
            key={`${f.citing} ${f.cited}`}
            data-flow={f.links}
            d={`M${at(f.to.x, f.to.y)}C${at(bend, f.to.y + lift)} ${at(bend, f.from.y + lift)} ${at(f.from.x, f.from.y)}`}
            fill="none"
            stroke="var(--past)"
            strokeOpacity={0.32}
            strokeWidth={broad}
            strokeLinecap="round"
          >
            <title>{`${name(f.citing)} cites ${name(f.cited)} ${count(f.links)} times`}</title>
          </path>
        );
      })}
      {flows
        .filter((f) => f.links >= most / 8)
        .map((f) => (
          <text
            key={`${f.citing} ${f.cited}`}
            x={(f.from.x + f.to.x) / 2}
            y={(f.from.y + f.to.y) / 2 + (f.citing === f.cited ? -22 : 4)}
            fontSize={11}
            fontWeight={600}
            textAnchor="middle"
            fill="var(--ink)"
            stroke="var(--paper)"
            strokeWidth={3}
            paintOrder="stroke"
          >
            {count(f.links)}
          </text>
        ))}
    </g>
  );
});
