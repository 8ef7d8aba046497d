import { Popover } from "radix-ui";
import { useState } from "react";
import { PopOver } from "../../ui/PopOver";
import type { Dto } from "../../api/client";
import { count } from "../../ui/numbers";
import { useFacet, useLate, type Facet, type Place, type StepAct } from "./useSearch";

const names: Record<Facet, string> = {
  Year: "Year",
  Type: "Type",
  Language: "Language",
  Venue: "Venue",
  Subject: "Subject",
  Person: "Person",
  Database: "Database",
  Text: "Text at hand",
  Stage: "Stage",
  Tag: "Tag",
};

const chip =
  "h-[26px] max-w-[230px] truncate rounded-md border bg-raised px-2.5 text-[12.5px] whitespace-nowrap hover:border-ink data-[state=open]:border-pine";

/** One field as a chip with a pop-over: take or leave out values, with exact counts. Closing it makes the step; Escape leaves all as it was. */
export function FacetChip({
  facet,
  place,
  narrowing,
  take,
}: {
  facet: Facet;
  place: Place;
  narrowing: Dto<"NarrowingDto"> | null;
  take: (act: StepAct) => void;
}) {
  const [open, setOpen] = useState(false);
  const [values, setValues] = useState<string[]>([]);
  const [excluded, setExcluded] = useState<string[]>([]);
  const [find, setFind] = useState("");
  const late = useLate(find, 120);
  const facetCounts = useFacet(place.reviewId, place.stepId, facet, late, open);
  const begin = () => {
    setValues([...(narrowing?.values ?? [])]);
    setExcluded([...(narrowing?.excluded ?? [])]);
    setFind("");
    setOpen(true);
  };
  const close = (keep: boolean) => {
    setOpen(false);
    const same = (a: readonly string[], b: readonly string[]) => a.length === b.length && a.every((v) => b.includes(v));
    if (keep && !(same(values, narrowing?.values ?? []) && same(excluded, narrowing?.excluded ?? [])))
      take({ kind: "Narrow", facet, values, excluded });
  };
  const said = narrowing
    ? [narrowing.values.join(", "), narrowing.excluded.length > 0 ? `not ${narrowing.excluded.join(", ")}` : ""]
        .filter(Boolean)
        .join("; ")
    : "";
  const flip = (
    list: string[],
    set: (l: string[]) => void,
    other: string[],
    setOther: (l: string[]) => void,
    value: string,
  ) => {
    set(list.includes(value) ? list.filter((v) => v !== value) : [...list, value]);
    setOther(other.filter((v) => v !== value));
  };
  return (
    <Popover.Root open={open} onOpenChange={(next) => (next ? begin() : close(true))}>
      <Popover.Trigger
        className={`${chip} ${said ? "border-pine text-ink" : "border-edge/70 text-quiet"}`}
        title={said || undefined}
      >
        {said ? (
          <>
            <b className="font-semibold">{names[facet]}</b> {said}
          </>
        ) : (
          names[facet]
        )}
      </Popover.Trigger>
      <PopOver label={`Narrow by ${names[facet].toLowerCase()}`} width={340} onEscape={() => close(false)}>
        {(facetCounts.data?.values ?? 0) > 8 && (
          <input
            value={find}
            onChange={(e) => setFind(e.target.value)}
            aria-label={`Find in ${names[facet].toLowerCase()}`}
            placeholder={`Find among ${count(facetCounts.data?.values ?? 0)}`}
            className="mb-2 h-8 w-full rounded-md border border-edge bg-raised px-2 text-[13px]"
          />
        )}
        <ul className="max-h-[300px] overflow-y-auto" aria-label={names[facet]}>
          {facetCounts.data?.shown.map((v) => {
            const out = excluded.includes(v.value);
            return (
              <li key={v.value} className="flex min-h-[26px] items-center gap-2 rounded px-1 hover:bg-mist">
                <label className="flex min-w-0 flex-1 items-center gap-2">
                  <input
                    type="checkbox"
                    checked={values.includes(v.value)}
                    onChange={() => flip(values, setValues, excluded, setExcluded, v.value)}
                    className="accent-[var(--pine)]"
                  />
                  <span className={`min-w-0 flex-1 truncate ${out ? "text-aside line-through" : ""}`} title={v.value}>
                    {v.value}
                    {v.perhaps.length > 0 && (
                      <span className="block truncate text-[11.5px] text-quiet" title={v.perhaps.join("; ")}>
                        perhaps also {v.perhaps.join("; ")}
                      </span>
                    )}
                  </span>
                  <span className="text-right text-quiet">{count(v.count)}</span>
                </label>
                <button
                  type="button"
                  aria-pressed={out}
                  onClick={() => flip(excluded, setExcluded, values, setValues, v.value)}
                  className={`h-6 rounded px-1.5 text-[12px] ${out ? "bg-aside text-raised" : "text-faint hover:text-aside"}`}
                >
                  not <span className="sr-only">{v.value}</span>
                </button>
              </li>
            );
          })}
          {facetCounts.data?.shown.length === 0 && (
            <li className="px-1 py-2 text-quiet">
              {find ? "No value like that in this set." : "No work in this set has one."}
            </li>
          )}
        </ul>
        <div className="mt-2 flex justify-between border-t border-line pt-2">
          <button
            type="button"
            className="text-[12.5px] text-quiet underline underline-offset-2"
            onClick={() => {
              setValues([]);
              setExcluded([]);
            }}
          >
            any
          </button>
          <button
            type="button"
            className="rounded-md bg-pine px-3 py-1 text-[12.5px] font-semibold text-onpine"
            onClick={() => close(true)}
          >
            Narrow
          </button>
        </div>
      </PopOver>
    </Popover.Root>
  );
}
