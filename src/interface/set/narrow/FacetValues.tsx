import { useState } from "react";
import { count } from "../../ui/numbers";
import { facetHints, facetNames } from "./facets";
import { useFacet, useLate, type Facet } from "../useSet";
import { Press } from "../../ui/Press";
import { Input } from "../../ui/Input";

interface Chosen {
  values: readonly string[];
  excluded: readonly string[];
  /** Values of which a work has each, beside one of the others. */
  each: readonly string[];
}

/** Which values of a field are asked for and which left out, while it is chosen. */
export function useFacetChoice(begin: Chosen) {
  const [values, setValues] = useState<string[]>([...begin.values]);
  const [excluded, setExcluded] = useState<string[]>([...begin.excluded]);
  const [each, setEach] = useState<string[]>([...begin.each]);
  const flipped = (list: string[], value: string) =>
    list.includes(value) ? list.filter((v) => v !== value) : [...list, value];
  return {
    values,
    excluded,
    each,
    ask: (value: string) => {
      if (each.includes(value)) setEach(each.filter((v) => v !== value));
      else setValues(flipped(values, value));
      setExcluded(excluded.filter((v) => v !== value));
    },
    leaveOut: (value: string) => {
      setExcluded(flipped(excluded, value));
      setValues(values.filter((v) => v !== value));
      setEach(each.filter((v) => v !== value));
    },
    set: (next: Chosen) => {
      setValues([...next.values]);
      setExcluded([...next.excluded]);
      setEach([...next.each]);
    },
  };
}

export type FacetChoice = ReturnType<typeof useFacetChoice>;

/** The values of a field with their counts: take, or leave out. Those there are many of can be searched. */
export function FacetValues({
  reviewId,
  stepId,
  facet,
  choice,
  enabled = true,
}: {
  reviewId: number;
  stepId: number;
  facet: Facet;
  choice: FacetChoice;
  enabled?: boolean;
}) {
  const [find, setFind] = useState("");
  const late = useLate(find, 120);
  const counts = useFacet(reviewId, stepId, facet, late, enabled);
  const name = facetNames[facet].toLowerCase();
  return (
    <>
      {(counts.data?.values ?? 0) > 8 && (
        <Input
          value={find}
          onChange={(e) => setFind(e.target.value)}
          aria-label={`Find in ${name}`}
          placeholder={`Find among ${count(counts.data?.values ?? 0)}`}
          className="mb-2 h-8 w-full text-[13px]"
        />
      )}
      {facetHints[facet] && <p className="mb-2 text-[12px] text-quiet">{facetHints[facet]}</p>}
      <ul className="max-h-[300px] overflow-y-auto" aria-label={facetNames[facet]}>
        {counts.data?.shown.map((v) => {
          const out = choice.excluded.includes(v.value);
          const required = choice.each.includes(v.value);
          return (
            <li key={v.value} className="flex min-h-[26px] items-center gap-2 rounded px-1 hover:bg-mist">
              <label className="flex min-w-0 flex-1 items-center gap-2">
                <input
                  type="checkbox"
                  checked={required || choice.values.includes(v.value)}
                  onChange={() => choice.ask(v.value)}
                  className="accent-[var(--pine)]"
                />
                <span className={`min-w-0 flex-1 truncate ${out ? "text-aside line-through" : ""}`} title={v.value}>
                  {v.value}
                  {required && <span className="text-[11.5px] text-quiet"> · required with the others</span>}
                  {v.perhaps.length > 0 && (
                    <span className="block truncate text-[11.5px] text-quiet" title={v.perhaps.join("; ")}>
                      perhaps also {v.perhaps.join("; ")}
                    </span>
                  )}
                </span>
                <span className="text-right text-quiet">{count(v.count)}</span>
              </label>
              <Press
                aria-pressed={out}
                onClick={() => choice.leaveOut(v.value)}
                className={`h-6 rounded px-1.5 text-[12px] ${out ? "bg-aside text-raised" : "text-faint hover:text-aside"}`}
              >
                exclude <span className="sr-only">{v.value}</span>
              </Press>
            </li>
          );
        })}
        {counts.data?.shown.length === 0 && (
          <li className="px-1 py-2 text-quiet">
            {find ? "No such value in this set." : "No work in this set has one."}
          </li>
        )}
      </ul>
    </>
  );
}
