import { useState } from "react";
import { count } from "../../ui/numbers";
import type { Place } from "../useSet";
import { useScore } from "../useWork";
import { TextButton } from "../../ui/TextButton";

/** How the work comes by its place when the list is ordered by relevance, concept by concept. */
export function Score({ place, workId }: { place: Place; workId: number }) {
  const [open, setOpen] = useState(false);
  const score = useScore(place.reviewId, workId, place.stepId, open);
  return (
    <div className="mt-1 text-[12.5px]">
      <TextButton aria-expanded={open} className="text-quiet" onClick={() => setOpen(!open)}>
        {open ? "Hide the relevance score" : "Show the relevance score"}
      </TextButton>
      {open && score.data && score.data.parts.length === 0 && (
        <p className="mt-1 text-quiet">The search terms add nothing to the score of this work.</p>
      )}
      {open && score.data && score.data.parts.length > 0 && (
        <table data-field="score" className="mt-1.5 w-full tabular-nums">
          <caption className="sr-only">Relevance score by concept</caption>
          <thead className="text-left text-[11.5px] text-quiet">
            <tr>
              <th className="font-normal">concept</th>
              <th className="pl-2 text-right font-normal">in records</th>
              <th className="pl-2 text-right font-normal">rarity</th>
              <th className="pl-2 text-right font-normal">weight here</th>
              <th className="pl-2 text-right font-normal">adds</th>
            </tr>
          </thead>
          <tbody>
            {score.data.parts.map((p) => (
              <tr key={p.concept} className="border-t border-line">
                <td className="max-w-[150px] truncate py-0.5" title={p.unit}>
                  {p.concept}: {p.unit}
                </td>
                <td className="pl-2 text-right">{count(p.records)}</td>
                <td className="pl-2 text-right">{p.rarity.toFixed(2)}</td>
                <td className="pl-2 text-right">{p.weight.toFixed(2)}</td>
                <td className="pl-2 text-right">{p.worth.toFixed(2)}</td>
              </tr>
            ))}
          </tbody>
          <tfoot className="border-t border-edge">
            <tr>
              <td colSpan={4} className="py-0.5 text-quiet">
                {score.data.nearness > 1
                  ? `sum × ${score.data.nearness.toFixed(2)}, because the concepts stand close together`
                  : "sum"}
              </td>
              <td className="pl-2 text-right font-semibold">{score.data.total.toFixed(2)}</td>
            </tr>
          </tfoot>
        </table>
      )}
    </div>
  );
}
