import { Popover } from "radix-ui";
import { useState } from "react";
import { PopOver } from "../../ui/PopOver";
import type { Dto } from "../../api/client";
import { count } from "../../ui/numbers";
import type { StepAct } from "../../set/useSet";
import { barButton } from "../../ui/Button";

/**
 * Whose references the trail follows: what each database reports, and a switch for each. Of neighbours and candidates it is
 * which databases they are looked for in. Closing makes the step.
 */
export function CountsBy({ view, take }: { view: Dto<"StepViewDto">; take: (act: StepAct) => void }) {
  const areNeighbours = view.state.trail === null;
  const lines = view.ledger.databases;
  const now = lines.filter((d) => d.chosen).map((d) => d.databaseId);
  const [chosen, setChosen] = useState<number[] | null>(null);
  const on = chosen ?? now;
  const close = () => {
    setChosen(null);
    if (chosen && chosen.length > 0 && chosen.join() !== now.join())
      take({ kind: "Databases", databases: chosen.length === lines.length ? [] : chosen });
  };
  return (
    <Popover.Root onOpenChange={(open) => (open ? setChosen(now) : close())}>
      <Popover.Trigger className={`${barButton} max-w-[240px] shrink-0 truncate`}>
        {areNeighbours ? "in" : "by"}{" "}
        <b className="font-semibold text-ink">
          {now.length === lines.length
            ? "all databases"
            : lines
                .filter((d) => d.chosen)
                .map((d) => d.name)
                .join(", ")}
        </b>
      </Popover.Trigger>
      <PopOver
        label={areNeighbours ? "Databases they are in" : "Databases whose references count"}
        width={400}
        align="end"
      >
        <table className="w-full text-[13px]">
          <thead className="text-[11.5px] text-faint">
            <tr>
              <th className="text-left font-normal">{areNeighbours ? "held by" : "reported by"}</th>
              <th className="text-right font-normal">{areNeighbours ? "records" : "ties"}</th>
              <th className="text-right font-normal">works</th>
              <th className="text-right font-normal">only here</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((d) => (
              <tr key={d.databaseId}>
                <td>
                  <label className="flex items-center gap-2 py-0.5">
                    <input
                      type="checkbox"
                      checked={on.includes(d.databaseId)}
                      onChange={() =>
                        setChosen(
                          lines
                            .map((l) => l.databaseId)
                            .filter((id) => (id === d.databaseId ? !on.includes(id) : on.includes(id))),
                        )
                      }
                      className="accent-[var(--pine)]"
                    />
                    {d.name}
                  </label>
                </td>
                <td className="text-right">{count(d.records)}</td>
                <td className="text-right">{count(d.works)}</td>
                <td className="text-right text-quiet">{count(d.onlyHere)}</td>
              </tr>
            ))}
            <tr className="border-t border-line">
              <td className="pt-1 font-semibold">joined</td>
              <td className="pt-1 text-right">{count(view.ledger.records)}</td>
              <td className="pt-1 text-right font-bold">{count(view.ledger.works)}</td>
              <td />
            </tr>
          </tbody>
        </table>
        <p className="mt-2 text-[12px] text-quiet">
          {areNeighbours
            ? "References and citations count whichever database reports them."
            : "A tie is one citation between a seed and a work, as one or more of these sources report it."}
        </p>
      </PopOver>
    </Popover.Root>
  );
}
