import { memo } from "react";
import type { Arranged } from "./arrange";
import { isTicked } from "./columns";
import { Layer } from "./Layer";
import { laneColour, markPaint, markPath, tagNumber, workColour } from "./marks";
import type { MapAlong, MapColour, MapOf } from "./useMap";

/** Lanes, years and marks: what stays as it is while one looks around. */
export const MapBase = memo(function MapBase({
  map,
  picture,
  along,
  colour,
  width,
}: {
  map: MapOf;
  picture: Arranged;
  along: MapAlong;
  colour: MapColour;
  width: number;
}) {
  return (
    <>
      <Layer>
        {picture.lanes.map((lane, i) => (
          <rect
            key={lane.of}
            x={0}
            y={lane.y}
            width={width}
            height={lane.height}
            fill={i % 2 === 0 ? "var(--soft)" : "var(--paper)"}
            opacity={i % 2 === 0 ? 0.55 : 1}
          />
        ))}
        {map.columns.filter(isTicked(map, along)).map((c) => (
          <line key={c.x} x1={c.x} x2={c.x} y1={0} y2={picture.height} stroke="var(--line)" />
        ))}
      </Layer>
      <Layer data-marks>
        {picture.marks.map(({ of, work, x, y }) => (
          <path
            key={of}
            data-mark={work.id}
            data-stage={work.stage}
            d={markPath(work.stage, x, y, work.diameter)}
            {...markPaint(work.stage, workColour(map, colour, work), work.diameter)}
          />
        ))}
        {picture.marks
          .filter(({ work }) => work.isShared)
          .map(({ of, work, x, y }) => (
            <path
              key={`shared ${of}`}
              data-shared={work.id}
              d={`M${(x - work.diameter / 2).toFixed(1)} ${(y + work.diameter / 2 + 0.8).toFixed(1)}h${work.diameter}`}
              stroke="var(--ink)"
              strokeWidth={1.4}
            />
          ))}
        {picture.marks.map(({ of, work, x, y }) => {
          const number = tagNumber(colour, work);
          return number === null ? null : (
            <text
              key={`tag ${of}`}
              data-tag={number}
              x={x + work.diameter / 2}
              y={y - work.diameter / 2 + 4}
              fontSize={9}
              fontWeight={700}
              fill="var(--ink)"
              stroke="var(--paper)"
              strokeWidth={2}
              paintOrder="stroke"
            >
              {number}
            </text>
          );
        })}
        {picture.bins.map((bin) => (
          <g key={`${bin.lane} ${bin.x}`} data-bin={bin.works.length}>
            <rect
              x={bin.x}
              y={bin.y}
              width={bin.width}
              height={bin.height}
              rx={3}
              fill="var(--paper)"
              stroke={laneColour(map, bin.lane)}
              strokeWidth={1.5}
            />
            <text
              x={bin.x + bin.width / 2}
              y={bin.y + bin.height / 2 + 4}
              textAnchor="middle"
              fontSize={bin.width < 24 ? 9 : 11}
              fontWeight={600}
              fill="var(--ink)"
            >
              {bin.works.length}
            </text>
          </g>
        ))}
      </Layer>
    </>
  );
});
