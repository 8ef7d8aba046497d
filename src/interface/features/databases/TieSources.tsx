import { useState } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { TextButton } from "../../ui/TextButton";
import { ago, count } from "../../ui/numbers";
import { useHarvest } from "../../review/useDatabases";
import { useRemoveTieTable, useTieSources } from "../../review/useTieSources";
import { AddTieTable } from "./AddTieTable";

type Source = Dto<"TieSourceDto">;

/** Citations that no record of a database has: read out of gathered texts, or from tables. */
export function TieSources({ curator }: { curator: boolean }) {
  const sources = useTieSources();
  const [adding, setAdding] = useState(false);
  const data = sources.data;
  if (sources.error) return <Fault error={sources.error} again={() => void sources.refetch()} />;
  if (!data || (data.length === 0 && !curator)) return null;
  return (
    <section className="border-t border-line px-[18px] py-4 max-sm:px-3">
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <h2 className="font-serif text-[15px] font-semibold">Citations from elsewhere</h2>
        {curator && (
          <span className="ml-auto">
            <Button onClick={() => setAdding(true)}>Add citations from a table</Button>
          </span>
        )}
      </div>
      {data.length === 0 ? (
        <p className="max-w-[72ch] text-[12.5px] text-quiet">
          Citations come from the records of the databases. If no record of a work lists references, they are read from
          its gathered text. A table of DOIs can add more.
        </p>
      ) : (
        <ul className="divide-y divide-soft border-y border-soft">
          {data.map((s) => (
            <SourceRow key={s.id} source={s} curator={curator} />
          ))}
        </ul>
      )}
      {adding && <AddTieTable close={() => setAdding(false)} />}
    </section>
  );
}

function SourceRow({ source: s, curator }: { source: Source; curator: boolean }) {
  const [asking, setAsking] = useState(false);
  const remove = useRemoveTieTable();
  return (
    <li
      className={`grid grid-cols-[minmax(0,1fr)_110px_110px_130px_170px] items-center gap-5 py-2
        max-[1150px]:grid-cols-[minmax(0,1fr)_90px_90px_120px] max-sm:grid-cols-3 max-sm:gap-2`}
    >
      <div className="min-w-0 max-sm:col-span-3">
        <h3 className="truncate font-semibold">{s.name}</h3>
        <p className="text-[12.5px] text-quiet">
          {s.isOfTexts
            ? `${count(s.rows)} ${s.rows === 1 ? "text gives" : "texts give"} the references that records lack`
            : `table of ${count(s.rows)} ${s.rows === 1 ? "row" : "rows"}${
                s.unread > 0 ? `, ${count(s.unread)} without two DOIs` : ""
              }`}
        </p>
      </div>
      <Figure n={s.citations} word="citations" title="Citations between works here" />
      <Figure n={s.onlyHere} word="only here" title="Citations that no other source reports" />
      {s.isOfTexts ? (
        <span />
      ) : (
        <Figure n={s.unknown} word="unknown DOIs" title="Different DOIs in the table that match no work here" />
      )}
      <div className="text-right text-[12px] text-quiet max-[1150px]:col-span-4 max-sm:col-span-3">
        {s.job ? (
          <JobState job={s.job} curator={curator} />
        ) : (
          <p>{s.isOfTexts ? "kept up to date" : `added ${ago(s.at)}`}</p>
        )}
        {curator &&
          !s.isOfTexts &&
          (asking ? (
            <>
              <TextButton className="text-aside" onClick={() => remove.mutate(s.id)}>
                remove its {count(s.citations)} citations
              </TextButton>{" "}
              <TextButton onClick={() => setAsking(false)}>keep</TextButton>
            </>
          ) : (
            <TextButton onClick={() => setAsking(true)}>remove</TextButton>
          ))}
      </div>
    </li>
  );
}

function JobState({ job, curator }: { job: Dto<"JobDto">; curator: boolean }) {
  const harvest = useHarvest();
  const broken = job.state === "Failed" || job.state === "Stopped";
  return (
    <p role="status" className={job.state === "Failed" ? "text-aside" : ""}>
      {job.message} {broken && curator && <TextButton onClick={() => harvest.resume.mutate(job.id)}>resume</TextButton>}
    </p>
  );
}

function Figure({ n, word, title }: { n: number; word: string; title: string }) {
  return (
    <p className="text-right" title={title}>
      <b className="block text-[16px] leading-tight font-bold">{count(n)}</b>
      <span className="text-[11.5px] text-quiet">{word}</span>
    </p>
  );
}
