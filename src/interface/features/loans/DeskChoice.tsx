import type { Dto } from "../../api/client";
import { count } from "../../ui/numbers";
import { money } from "../../set/loan/words";

type Desk = Dto<"AskableDeskDto">;

/** The desks one can ask, each with what it costs, how long it takes and how many requests one still has. */
export function DeskChoice({
  desks,
  chosen,
  asked,
  service,
  choose,
}: {
  desks: readonly Desk[];
  chosen: number | null;
  /** Desks that were asked in vain for the work in view. */
  asked: readonly number[];
  service: Dto<"LoanService">;
  choose: (desk: Desk) => void;
}) {
  return (
    <fieldset className="mb-3">
      <legend className="mb-1 text-[12.5px] font-semibold">Ask</legend>
      <div className="divide-y divide-line rounded-md border border-line bg-raised">
        {desks.map((d) => (
          <label
            key={d.id}
            className="flex cursor-pointer items-baseline gap-2.5 px-3 py-1.5 text-[13px] has-checked:bg-mist/60"
          >
            <input
              type="radio"
              name="desk"
              checked={d.id === chosen}
              disabled={isFull(d)}
              onChange={() => choose(d)}
              className="accent-pine"
            />
            <span className="min-w-0 flex-1">
              <b className="font-semibold">{d.name}</b>
              <span className="text-quiet"> for {d.library}</span>
              {asked.includes(d.id) && <span className="text-futuretext"> · asked before, not supplied</span>}
            </span>
            <span className="text-right text-[12.5px] text-quiet">{terms(d, service)}</span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

/** Whether a desk takes no further request of the person. */
export const isFull = (d: Desk) => d.mostOpen !== null && d.open >= d.mostOpen;

/** What a copy or a loan costs at a desk; null when it does not say. */
export const costOf = (d: Desk, service: Dto<"LoanService">) => (service === "Loan" ? d.lendCost : d.copyCost);

function terms(d: Desk, service: Dto<"LoanService">): string {
  const cost = costOf(d, service);
  return [
    cost === null
      ? "cost not said"
      : cost === 0
        ? "free of charge"
        : `${service === "Loan" ? "a loan" : "a copy"} ${money(cost, d.currency)}`,
    d.days !== null && `about ${count(d.days)} ${d.days === 1 ? "day" : "days"}`,
    d.mostOpen !== null && `${count(d.open)} of ${count(d.mostOpen)} open requests used`,
  ]
    .filter(Boolean)
    .join(" · ");
}
