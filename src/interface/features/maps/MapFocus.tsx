import { arc, linksSaid, type Point } from "./links";
import type { Arranged, Mark } from "./arrange";
import { markPaint, markPath, workColour } from "./marks";
import type { MapColour, MapOf, MapWork } from "./useMap";

/** What stands out: a work with what it cites over it and what cites it below, the picked works, a line through works. */
export function MapFocus({
  map,
  picture,
  colour,
  by,
  focus,
  link,
  picked,
  line,
  beside,
  width,
}: {
  map: MapOf;
  picture: Arranged;
  colour: MapColour;
  /** By work: what cites it. */
  by: readonly (readonly number[])[];
  /** Ordinal of the work in focus; null for none. */
  focus: number | null;
  /** The work at the other end of the link one walks along. */
  link: number | null;
  /** Ordinals of the picked works. */
  picked: ReadonlySet<number>;
  /** Works in a row, joined by a line: the main line, or a way between two works. */
  line: readonly number[];
  /** The work beside the set one looks at, with how far its lane was moved and what cites it. */
  beside: { work: MapWork; citedBy: readonly number[]; shift: number } | null;
  width: number;
}) {
  const at = focus === null ? undefined : picture.at.get(focus);
  const there = (ids: readonly number[]) => ids.flatMap((i) => picture.at.get(i) ?? []);
  const cites = at ? there(at.work.cites) : [];
  const citing = at && focus !== null ? there(by[focus] ?? []) : [];
  const others = there([...picked]);
  const linked = link === null ? undefined : picture.at.get(link);
  const chain = there(line);
  const besideAt = beside && { x: beside.work.x, y: beside.work.y + beside.shift };
  const paint = (mark: Mark) => (
    <path
      key={mark.of}
      d={markPath(mark.work.stage, mark.x, mark.y, mark.work.diameter || 6)}
      {...markPaint(mark.work.stage, workColour(map, colour, mark.work), mark.work.diameter || 6)}
    />
  );
  return (
    <g pointerEvents="none">
      {chain.slice(1).map((to, i) => (
        <path
          key={to.of}
          data-line
          d={arc(chain[i] ?? to, to, "over")}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={2.2}
          strokeOpacity={0.75}
        />
      ))}
      {chain.map(paint)}
      {at && cites.map((to) => <Arc key={to.of} from={at} to={to} way="over" strong={to === linked} />)}
      {at && citing.map((to) => <Arc key={to.of} from={at} to={to} way="under" strong={to === linked} />)}
      {beside && besideAt && (
        <>
          {there(beside.work.cites).map((to) => (
            <Arc key={to.of} from={besideAt} to={to} way="over" />
          ))}
          {there(beside.citedBy).map((to) => (
            <Arc key={to.of} from={besideAt} to={to} way="under" />
          ))}
          {there([...beside.work.cites, ...beside.citedBy]).map(paint)}
        </>
      )}
      {others.map((m) => (
        <circle
          key={m.of}
          data-picked={m.work.id}
          cx={m.x}
          cy={m.y}
          r={(m.work.diameter || 6) / 2 + 2.5}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.3}
          strokeDasharray="2.5 2"
        />
      ))}
      {others.map(paint)}
      {[...cites, ...citing].map(paint)}
      {at && (
        <>
          <circle
            cx={at.x}
            cy={at.y}
            r={(at.work.diameter || 6) / 2 + 4}
            fill="var(--paper)"
            stroke="var(--ink)"
            strokeWidth={1.8}
          />
          {paint(at)}
          <Label mark={at} width={width} text={told(at)} more={linksSaid(at, by[at.of]?.length ?? 0)} />
        </>
      )}
      {linked && <Label mark={linked} width={width} text={told(linked)} />}
    </g>
  );
}

const told = ({ work }: Mark) =>
  `${work.name}: ${work.title.length > 64 ? `${work.title.slice(0, 62)} …` : work.title}`;

function Arc({
  from,
  to,
  way,
  strong = false,
}: {
  from: Point;
  to: Point;
  way: "over" | "under";
  /** Whether it is the link one walks along. */
  strong?: boolean;
}) {
  return (
    <path
      data-arc={way}
      d={arc(from, to, way)}
      fill="none"
      stroke={way === "over" ? "var(--past)" : "var(--future)"}
      strokeWidth={strong ? 2.6 : 1.3}
    />
  );
}

/** A label that stays inside the picture, on a ground of its own; a second line in smaller letters. */
function Label({ mark, text, more, width }: { mark: Mark; text: string; more?: string; width: number }) {
  const wide = Math.max(text.length * 6.1, (more?.length ?? 0) * 5.6) + 10;
  const r = (mark.work.diameter || 6) / 2 + 8;
  // Beside the mark where there is room on a side; else below it, so that it never lies on what it names.
  const right = mark.x + r + wide < width;
  const left = mark.x - r - wide > 0;
  const x = right ? mark.x + r : left ? mark.x - r - wide : Math.max(0, Math.min(width - wide, mark.x - wide / 2));
  const y = right || left ? mark.y : mark.y + r + 12;
  return (
    <g>
      <rect x={x} y={y - 10} width={wide} height={more ? 34 : 19} rx={4} fill="var(--raised)" stroke="var(--line)" />
      <text x={x + 5} y={y + 4} fontSize={11.5} fontWeight={more ? 600 : 400} fill="var(--ink)">
        {text}
      </text>
      {more && (
        <text x={x + 5} y={y + 18} fontSize={11} fill="var(--quiet)">
          {more}
        </text>
      )}
    </g>
  );
}
