import { dayOf } from "../../ui/days";
import { count, works } from "../../ui/numbers";
import { StageMark, stageWords } from "../../ui/StageMark";
import { TextButton } from "../../ui/TextButton";
import { markPaint, markPath, tagColour } from "./marks";
import type { Choice, MapColour, MapOf } from "./useMap";
import { sizeSaid } from "./words";

const stages = ["Kept", "Found", "SetAside"] as const;

/** What each thing means in this picture: shapes, three sizes, arcs, and the lane that holds what is left over. */
export function MapLegend({
  map,
  choice,
  colour,
  onOpen,
  onAnew,
}: {
  map: MapOf;
  choice: Choice;
  colour: MapColour;
  onOpen: () => void;
  /** Finds topics anew; null for who may not. */
  onAnew: (() => void) | null;
}) {
  const others = map.lanes.find((l) => l.kind === "Others");
  const several = map.lanes.reduce((sum, l) => sum + l.several, 0);
  return (
    <p className="flex shrink-0 flex-wrap items-center gap-x-4 gap-y-0.5 px-[18px] py-1 text-[11.5px] text-quiet max-sm:px-3">
      {stages.map((s) => (
        <span key={s} className="inline-flex items-center gap-1.5">
          <StageMark stage={s} /> {stageWords[s]}
        </span>
      ))}
      {map.samples.length > 0 && (
        <span className="inline-flex items-center gap-1.5" data-samples>
          {sizeSaid(choice.size)}:
          {map.samples.map((s) => (
            <span key={s.size} className="inline-flex items-center gap-1">
              <svg width={24} height={24} aria-hidden="true">
                <path d={markPath("Kept", 12, 12, s.diameter)} {...markPaint("Kept", "var(--quiet)", s.diameter)} />
              </svg>
              {count(s.size)}
            </span>
          ))}
        </span>
      )}
      {colour === "Tag" && (
        <span className="inline-flex flex-wrap items-center gap-x-2.5" data-tags>
          {map.tags.length === 0 ? "colour: no work here has a tag" : "colour:"}
          {map.tags.map((t, i) => (
            <span key={t.name} className="inline-flex items-center gap-1">
              <svg width={10} height={10} aria-hidden="true">
                <rect width={10} height={10} rx={2} fill={tagColour(i)} />
              </svg>
              {i + 1} {t.name} ({count(t.works)})
            </span>
          ))}
        </span>
      )}
      <span className="inline-flex items-center gap-1.5">
        <Arc way="over" /> it cites
      </span>
      <span className="inline-flex items-center gap-1.5">
        <Arc way="under" /> cite it
      </span>
      {choice.suggest > 0 && (
        <span className="inline-flex items-center gap-1.5">
          <svg width={14} height={14} aria-hidden="true">
            <circle cx={7} cy={7} r={5} fill="none" stroke="var(--ink)" strokeWidth={1.5} strokeDasharray="2 2" />
          </svg>
          {map.suggested.length > 0
            ? `${map.suggested.length} suggested, from what is kept here`
            : "nothing to suggest: nothing here is kept, or all its neighbours are judged"}
        </span>
      )}
      {map.other && (
        <span className="inline-flex items-center gap-1.5" data-other={map.other.shared}>
          <svg width={12} height={12} aria-hidden="true">
            <path d="M1 10h10" stroke="var(--ink)" strokeWidth={1.6} />
          </svg>
          underlined: {count(map.other.shared)} also in the other set, which has {count(map.other.onlyThere)} more
        </span>
      )}
      <span>{count(map.links)} citations inside</span>
      {map.modularity !== null && (
        <span title="How many more links lie within topics than chance would give; at most 1">
          modularity {map.modularity.toFixed(2)}
        </span>
      )}
      {map.among && <Among of={map.among} lanes={choice.lanes} onAnew={onAnew} />}
      {several > 0 && <span>{count(several)} works belong to several lanes; each is shown in the largest</span>}
      {others && <TextButton onClick={onOpen}>open {count(others.values)} more lanes</TextButton>}
      {choice.open && <TextButton onClick={onOpen}>only the largest lanes</TextButton>}
    </p>
  );
}

/** What topics were found among, where the set has changed since. */
function Among({
  of,
  lanes,
  onAnew,
}: {
  of: NonNullable<MapOf["among"]>;
  lanes: Choice["lanes"];
  onAnew: (() => void) | null;
}) {
  const { came, gone } = of;
  if (came + gone === 0) return null;
  return (
    <span data-among={of.works}>
      {lanes === "Topic" ? "topics" : "senses"} found on {dayOf(of.at)} among {works(of.works)}
      {came > 0 && `; ${works(came)} added since, placed by ${came === 1 ? "its" : "their"} links`}
      {gone > 0 && `; ${count(gone)} ${gone === 1 ? "is" : "are"} no longer in the set`}
      {onAnew && (
        <>
          {" · "}
          <TextButton onClick={onAnew}>find them again</TextButton>
        </>
      )}
    </span>
  );
}

function Arc({ way }: { way: "over" | "under" }) {
  return (
    <svg width={18} height={10} aria-hidden="true">
      <path
        d={way === "over" ? "M1 9C5 1 13 1 17 9" : "M1 1C5 9 13 9 17 1"}
        fill="none"
        stroke={way === "over" ? "var(--past)" : "var(--future)"}
        strokeWidth={1.6}
      />
    </svg>
  );
}
