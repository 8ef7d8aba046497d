import { useState } from "react";
import { Link } from "react-router";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { count, moment, works } from "../../ui/numbers";
import { narrowingSaid } from "../../set/narrow/facets";
import { kindsSaid } from "../../set/neighbourWords";
import { TextReport } from "./TextReport";
import { useLog, useMarkRun, useRunAgain } from "./useLog";
import { Press } from "../../ui/Press";

type Run = Dto<"RunDto">;

/** Report: the account of full texts, and the search log, both written by the work itself. */
export function ReportPage({ reviewId }: { reviewId: number }) {
  const [onlyRecord, setOnlyRecord] = useState(false);
  const log = useLog(reviewId, onlyRecord);
  const runs = (log.data?.pages ?? []).flatMap((p) => p.runs);
  const counts = log.data?.pages[0];
  return (
    <>
      <TextReport reviewId={reviewId} />
      <div className="flex shrink-0 flex-wrap items-center gap-x-4 border-b border-line px-[18px] py-2.5">
        <h1 className="font-serif text-[18px] font-semibold whitespace-nowrap">Search log</h1>
        {counts ? (
          <p className="text-quiet">
            <b className="font-bold text-ink">{count(counts.searches)}</b>{" "}
            {counts.searches === 1 ? "search" : "searches"} run,{" "}
            <b className="font-bold text-ink">{count(counts.ofRecord)}</b> of record
          </p>
        ) : (
          <div className="shape h-5 w-[200px]" aria-busy={log.isPending} />
        )}
        <label className="ml-auto flex items-center gap-2 text-[12.5px]">
          <input
            type="checkbox"
            checked={onlyRecord}
            onChange={(e) => setOnlyRecord(e.target.checked)}
            className="accent-[var(--pine)]"
          />
          only those of record
        </label>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto bg-raised">
        {log.error && (
          <div className="p-6">
            <Fault error={log.error} again={() => void log.refetch()} />
          </div>
        )}
        {log.data && runs.length === 0 && (
          <div className="p-8">
            <p className="mb-1 font-serif text-[17px]">
              {onlyRecord ? "No search is of record yet." : "Nothing has been searched in this review yet."}
            </p>
            <p className="text-quiet">
              {onlyRecord
                ? "Mark the searches that belong in the report."
                : "Each search you run is logged here automatically, with its counts."}
            </p>
          </div>
        )}
        <ol>
          {runs.map((run) => (
            <RunRow key={run.id} run={run} reviewId={reviewId} />
          ))}
        </ol>
        {log.hasNextPage && (
          <p className="p-4">
            <Button onClick={() => void log.fetchNextPage()} disabled={log.isFetchingNextPage}>
              Show earlier searches
            </Button>
          </p>
        )}
      </div>
    </>
  );
}

/** What a run asked, in words. */
function question({ state }: Run): string {
  if (state.round)
    return `round ${state.round.number}: trails of ${works(state.round.seeds)}${
      state.round.kinds.length > 0
        ? `, and neighbours with ${state.round.atLeast} or more in common (${kindsSaid(state.round.kinds)})`
        : ""
    }`;
  if (state.citers) return `what cites ${state.citers.name}`;
  if (state.neighbours) return `neighbours of ${works(state.neighbours.seeds)}: ${kindsSaid(state.neighbours.kinds)}`;
  if (!state.trail) return state.expression || "everything";
  const seeds = works(state.trail.seeds);
  const many = state.trail.seeds !== 1;
  switch (state.trail.way) {
    case "Backward":
      return `what ${seeds} ${many ? "cite" : "cites"}`;
    case "Forward":
      return `what cites ${seeds}`;
    default:
      return `both ways from ${seeds}`;
  }
}

function limits(run: Run): string[] {
  const { state, ledger } = run;
  const names = ledger.databases.filter((d) => d.chosen && d.databaseId > 0).map((d) => d.name);
  return [
    `in ${names.join(", ")}`,
    ...(state.from !== null || state.to !== null ? [`years ${state.from ?? ""}–${state.to ?? ""}`] : []),
    ...state.narrowings.map((n) => `${n.facet.toLowerCase()} ${narrowingSaid(n)}`),
    ...(state.trail && state.trail.atLeast > 1 ? [`tied to ${state.trail.atLeast} or more`] : []),
    ...(state.neighbours && state.neighbours.atLeast > 1 ? [`${state.neighbours.atLeast} or more in common`] : []),
    ...(state.citers
      ? [`as ${[...state.citers.persons, ...state.citers.printed.map((p) => `${p} (printed)`)].join("; ")}`]
      : []),
    ...(state.citers && state.citers.self !== "With"
      ? [state.citers.self === "Only" ? "self-citations only" : "without self-citations"]
      : []),
    ...(state.round && state.round.known > 0 ? [`without ${works(state.round.known)} looked at before`] : []),
    ...state.inside.map((w) => `inside: ${w}`),
    ...(state.whereItCites ? [`where it cites: ${state.whereItCites}`] : []),
  ];
}

function RunRow({ run, reviewId }: { run: Run; reviewId: number }) {
  const mark = useMarkRun(reviewId);
  const again = useRunAgain(reviewId);
  return (
    <li
      className={`grid grid-cols-[150px_minmax(0,1fr)_230px_90px_210px] items-start gap-5 border-b border-soft px-[18px]
        py-3 max-[1150px]:grid-cols-[110px_minmax(0,1fr)_190px_70px_130px] max-[1150px]:gap-3
        max-sm:grid-cols-[minmax(0,1fr)] max-sm:gap-2 max-sm:px-3`}
    >
      <p className="text-[12.5px] text-quiet">
        {moment(run.at)}
        <span className="block">{run.by}</span>
      </p>
      <div className="min-w-0">
        <p className="font-serif text-[15px] leading-snug font-semibold break-words">
          {run.stepRemoved ? (
            question(run)
          ) : (
            <Link
              to={`/r/${reviewId}/${run.state.trail || run.state.neighbours || run.state.round ? "trails" : "search"}?step=${run.stepId}`}
              className="hover:underline"
            >
              {question(run)}
            </Link>
          )}
        </p>
        <p className="text-[12.5px] text-quiet">{limits(run).join(" · ")}</p>
        {run.repeats !== null && (
          <p className="text-[12.5px]">
            run again: <b>{count(run.new ?? 0)}</b> new, <b>{count(run.gone ?? 0)}</b> gone since
          </p>
        )}
      </div>
      <Found run={run} />
      <p className="text-right">
        <b className="block text-[16px] leading-tight font-bold">{count(run.count)}</b>
        <span className="text-[11.5px] text-quiet">
          {run.count === 1 ? "work" : "works"}
          {run.count !== run.ledger.works && <span className="block">within the limits</span>}
        </span>
      </p>
      <div className="flex items-center justify-end gap-2 max-[1150px]:flex-col max-[1150px]:items-end">
        <Press
          aria-pressed={run.ofRecord}
          onClick={() => mark.mutate({ runId: run.id, ofRecord: !run.ofRecord })}
          className={`h-8 rounded-md border px-2.5 text-[12.5px] whitespace-nowrap
            ${run.ofRecord ? "border-pine bg-mist font-semibold" : "border-dashed border-edge text-quiet hover:border-ink"}`}
          title={
            run.ofRecord
              ? "Of record: it belongs in the report. Press to mark it as an exploration"
              : "An exploration: it stays out of the report. Press to mark it as of record"
          }
        >
          {run.ofRecord ? "of record" : "exploration"}
        </Press>
        <Button onClick={() => again.mutate(run.id)} disabled={again.isPending}>
          Run again
        </Button>
      </div>
    </li>
  );
}

/** What each database brought, before years and other limits; together it makes the works found. */
function Found({ run: { ledger, state, count: within } }: { run: Run }) {
  return (
    <table className="w-full text-[12px]">
      <thead className="text-[11.5px] text-quiet">
        <tr>
          <td />
          <th scope="col" className="text-right font-normal">
            {state.trail ? "ties" : "records"}
          </th>
          <th scope="col" className="w-[74px] text-right font-normal">
            only here
          </th>
        </tr>
      </thead>
      <tbody>
        {ledger.databases
          .filter((d) => d.chosen)
          .map((d) => (
            <tr key={d.databaseId}>
              <th scope="row" className="truncate text-left font-normal text-quiet">
                {d.name}
              </th>
              <td className="text-right">{count(d.records)}</td>
              <td className="text-right text-quiet">{count(d.onlyHere)}</td>
            </tr>
          ))}
        <tr className="text-quiet">
          <th scope="row" className="text-left font-normal">
            {state.trail ? "ties reported more than once" : "duplicates joined"}
          </th>
          <td className="text-right">
            {ledger.duplicates > 0 && "−"}
            {count(ledger.duplicates)}
          </td>
          <td />
        </tr>
        <tr className="border-t border-line">
          <th scope="row" className="text-left font-normal text-quiet">
            {within === ledger.works ? "works" : "works before limits"}
          </th>
          <td className="text-right font-semibold">{count(ledger.works)}</td>
          <td />
        </tr>
      </tbody>
    </table>
  );
}
