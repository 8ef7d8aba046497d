import { useState } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Sheet } from "../../ui/Sheet";
import { ago, count, percent } from "../../ui/numbers";
import { VocabularyOf } from "./VocabularyOf";
import { useMe } from "../../review/useMe";
import { AboutAddresses } from "./AboutAddresses";
import { AddFromFile } from "./AddFromFile";
import { AddDatabase } from "./AddDatabase";
import { ChangeFormat } from "./ChangeFormat";
import { TieSources } from "./TieSources";
import { HarvestTimes } from "./HarvestTimes";
import { useDatabases, useHarvest, useSetPart } from "../../review/useDatabases";
import { Press } from "../../ui/Press";
import { TextButton } from "../../ui/TextButton";

type Database = Dto<"DatabaseDto">;

/** Databases: what each holds, how they overlap, when they were harvested. */
export function DatabasesPage() {
  const databases = useDatabases();
  const curator = useMe().data?.isCurator ?? false;
  const [adding, setAdding] = useState(false);
  const [many, setMany] = useState(false);
  const data = databases.data;
  return (
    <>
      <div className="flex shrink-0 flex-wrap items-center gap-x-3.5 gap-y-2 border-b border-line px-[18px] py-2.5 max-sm:px-3">
        {data ? (
          <>
            <b className="text-[19px] font-bold">{count(data.databases.length)}</b>
            <p className="text-quiet">
              {data.databases.length === 1 ? "database" : "databases"}, {count(data.records)}{" "}
              {data.records === 1 ? "record that describes" : "records that describe"}{" "}
              <b className="font-bold text-ink">{count(data.works)}</b> {data.works === 1 ? "work" : "works"}
            </p>
          </>
        ) : (
          <div className="shape h-5 w-[340px]" aria-busy={databases.isPending} />
        )}
        {curator && data && data.databases.length > 0 && (
          <span className="ml-auto flex gap-2">
            <Button onClick={() => setMany(true)}>Add several from a file</Button>
            <Button kind="primary" onClick={() => setAdding(true)}>
              Add a database by its address
            </Button>
          </span>
        )}
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto">
        {databases.error && (
          <div className="p-6">
            <Fault error={databases.error} again={() => void databases.refetch()} />
          </div>
        )}
        <ul className="bg-raised">
          {data?.databases.map((d) => (
            <DatabaseRow
              key={d.id}
              database={d}
              all={data.databases}
              curator={curator}
              wholeEveryDays={data.wholeEveryDays}
              followsOutside={data.followsOutside}
            />
          ))}
        </ul>
        {data?.databases.length === 0 && (
          <div className="p-8">
            <p className="mb-3 font-serif text-[17px]">No database yet.</p>
            <AboutAddresses />
            {curator && (
              <div className="mt-5 flex gap-2">
                <Button kind="primary" onClick={() => setAdding(true)}>
                  Add a database by its address
                </Button>
                <Button onClick={() => setMany(true)}>Add several from a file</Button>
              </div>
            )}
          </div>
        )}
        {data && data.databases.length > 1 && <Overlap databases={data.databases} />}
        {data && data.databases.length > 0 && <TieSources curator={curator} />}
      </div>
      {adding && <AddDatabase close={() => setAdding(false)} />}
      {many && <AddFromFile close={() => setMany(false)} />}
    </>
  );
}

/** From what share of its works that another holds too a database may be an extract of it. */
const nearlyAll = 0.98;

/** Of which database this one is an extract. A curator says so; where another holds nearly all of it, that is pointed out. */
function PartOf({ database: d, all, curator }: { database: Database; all: readonly Database[]; curator: boolean }) {
  const set = useSetPart();
  const whole = all.find((o) => o.id === d.partOf);
  const likely =
    d.partOf === null && !all.some((o) => o.partOf === d.id)
      ? all.find(
          (o) =>
            o.partOf === null &&
            o.works > d.works &&
            (d.overlap.find((x) => x.databaseId === o.id)?.works ?? 0) >= nearlyAll * d.works,
        )
      : undefined;
  if (!whole && !(likely && curator)) return null;
  const button = "underline decoration-line underline-offset-2 hover:decoration-ink";
  return (
    <span className="px-1 text-quiet">
      {whole ? `extract of ${whole.name}; ` : `nearly all of it is in ${likely?.name ?? ""}; `}
      {curator && (
        <Press className={button} onClick={() => set.mutate({ id: d.id, partOf: whole ? null : (likely?.id ?? null) })}>
          {whole ? "it is not an extract" : "mark as an extract"}
        </Press>
      )}
    </span>
  );
}

function DatabaseRow({
  database: d,
  all,
  curator,
  wholeEveryDays,
  followsOutside,
}: {
  database: Database;
  all: readonly Database[];
  curator: boolean;
  wholeEveryDays: number;
  followsOutside: boolean;
}) {
  return (
    <li
      className={`grid grid-cols-[minmax(0,1fr)_84px_180px_176px_170px] items-center gap-5 border-b border-soft px-[18px]
        py-2.5 max-[1150px]:grid-cols-[minmax(0,1fr)_80px_150px_160px] max-[1150px]:gap-y-1 max-sm:grid-cols-[minmax(0,1fr)_80px]
        max-sm:gap-x-3 max-sm:gap-y-1.5 max-sm:px-3`}
    >
      <div className="min-w-0">
        <h2 className="font-serif text-[15px] font-semibold">{d.name}</h2>
        <p className="truncate text-[12.5px] text-quiet" title={`${d.description} ${d.address}`}>
          {d.description || d.address}
        </p>
        <p className="mt-1 flex flex-wrap gap-1.5 text-[11.5px]">
          <FieldShare word="abstract" n={d.withAbstract} of={d.records} />
          <FieldShare word="keywords" n={d.withKeywords} of={d.records} />
          <FieldShare word="references" n={d.withReferences} of={d.records} />
          {!d.isOfEntries && (
            <>
              <FormatOf database={d} curator={curator} />
              <VocabularyOf database={d} curator={curator} />
              <PartOf database={d} all={all} curator={curator} />
            </>
          )}
        </p>
      </div>
      <p className="text-right">
        <b className="block text-[16px] leading-tight font-bold">{count(d.records)}</b>
        <span className="text-[11.5px] text-quiet">records</span>
      </p>
      <YearSpan years={d.years} />
      <TypeBar types={d.types} />
      <div className="max-[1150px]:col-span-4 max-sm:col-span-2">
        {d.isOfEntries ? (
          <p className="text-right text-[12px] text-quiet">{d.harvestedAt && `last changed ${ago(d.harvestedAt)}`}</p>
        ) : (
          <HarvestState
            database={d}
            curator={curator}
            wholeEveryDays={wholeEveryDays}
            followsOutside={followsOutside}
          />
        )}
      </div>
    </li>
  );
}

/** The format a database is harvested in; a curator may look at the others. */
function FormatOf({ database: d, curator }: { database: Database; curator: boolean }) {
  const [looking, setLooking] = useState(false);
  if (!curator) return <span className="px-1 text-faint">{d.format}</span>;
  return (
    <>
      <TextButton className="px-1 text-quiet" title="Look at the formats it offers" onClick={() => setLooking(true)}>
        {d.format}
      </TextButton>
      {looking && <ChangeFormat id={d.id} name={d.name} format={d.format} close={() => setLooking(false)} />}
    </>
  );
}

/** Which share of the records has a field: what a search in that field can see. */
function FieldShare({ word, n, of }: { word: string; n: number; of: number }) {
  const share = of === 0 ? 0 : Math.round((100 * n) / of);
  const look = share === 0 ? "text-faint line-through" : share < 70 ? "bg-band text-bandtext" : "bg-mist text-pine";
  return (
    <span className={`rounded px-1.5 ${look}`} title={`${count(n)} of ${count(of)} records`}>
      {word} {share > 0 && `${share} %`}
    </span>
  );
}

function YearSpan({ years }: { years: readonly Dto<"SpanCountDto">[] }) {
  const first = years[0]?.year;
  const last = years.at(-1)?.year;
  if (first === undefined || last === undefined) return <span />;
  const most = Math.max(...years.map((y) => y.count));
  const slot = 176 / (last - first + 1);
  return (
    <div>
      <svg viewBox="0 0 176 26" className="w-full" role="img" aria-label={`records by year, ${first} to ${last}`}>
        {years.map((y) => {
          const h = 1.5 + (24 * y.count) / most;
          return (
            <rect
              key={y.year}
              x={(y.year - first) * slot}
              width={Math.max(1, slot - 0.8)}
              y={26 - h}
              height={h}
              fill="var(--measure)"
            />
          );
        })}
      </svg>
      <p className="flex justify-between text-[11.5px] text-faint">
        <span>{first}</span>
        <span>{last}</span>
      </p>
    </div>
  );
}

function TypeBar({ types }: { types: readonly Dto<"ValueCountDto">[] }) {
  const total = types.reduce((sum, t) => sum + t.count, 0);
  if (total === 0) return <span />;
  return (
    <div title={types.map((t) => `${t.value} ${count(t.count)}`).join(", ")}>
      <div className="flex h-[9px] gap-px overflow-hidden rounded-sm" aria-hidden="true">
        {types.map((t, i) => (
          <i
            key={t.value}
            className="bg-pine"
            style={{ width: `${(100 * t.count) / total}%`, opacity: Math.max(0.15, 1 - i * 0.22) }}
          />
        ))}
      </div>
      <p className="mt-0.5 truncate text-[11.5px] text-quiet">
        {types
          .slice(0, 3)
          .map((t) => `${t.value} ${percent(t.count / total)}`)
          .join(", ")}
      </p>
    </div>
  );
}

function HarvestState({
  database: d,
  curator,
  wholeEveryDays,
  followsOutside,
}: {
  database: Database;
  curator: boolean;
  wholeEveryDays: number;
  followsOutside: boolean;
}) {
  const harvest = useHarvest();
  const [reading, setReading] = useState(false);
  const job = d.job;
  const link = "underline decoration-line underline-offset-2 hover:decoration-ink";
  if (job && (job.state === "Running" || job.state === "Waiting")) {
    const share = job.total ? Math.min(100, Math.round((100 * job.done) / job.total)) : null;
    return (
      <div className="text-[12px]" role="status">
        <div
          className="mb-1 h-[5px] overflow-hidden rounded bg-soft"
          role="progressbar"
          aria-label={`Harvest of ${d.name}`}
          aria-valuenow={share ?? undefined}
          aria-valuemin={0}
          aria-valuemax={100}
        >
          <i
            className={`block h-full bg-pine ${share === null ? "shape w-full" : ""}`}
            style={share === null ? undefined : { width: `${share}%` }}
          />
        </div>
        <p className="text-quiet">{job.message}</p>
        {curator && (
          <Press className={link} onClick={() => harvest.stop.mutate(job.id)}>
            stop
          </Press>
        )}
      </div>
    );
  }
  const broken = job?.state === "Failed" || job?.state === "Stopped";
  return (
    <div className="text-right text-[12px] text-quiet">
      {broken ? (
        <p className={job.state === "Failed" ? "text-left text-aside" : "text-left"}>{job.message}</p>
      ) : d.harvestedAt ? (
        <p title={job?.message}>{ago(d.harvestedAt)}</p>
      ) : (
        <p>not harvested yet</p>
      )}
      {!broken && job && <p className="text-[11.5px] text-faint">{job.message}</p>}
      {curator && (
        <Press
          className={`text-ink ${link}`}
          onClick={() => (broken ? harvest.resume.mutate(job.id) : harvest.begin.mutate({ id: d.id, whole: false }))}
        >
          {broken ? "resume" : "harvest now"}
        </Press>
      )}
      <span className="ml-2">
        <HarvestTimes database={d} curator={curator} followsOutside={followsOutside} />
      </span>
      {curator && !broken && d.harvestedAt && (d.deletedRecord !== "persistent" || (job?.skipped.length ?? 0) > 0) && (
        <Press
          className={`ml-2 ${link}`}
          title={wholeHint(d, wholeEveryDays)}
          onClick={() => harvest.begin.mutate({ id: d.id, whole: true })}
        >
          harvest all again
        </Press>
      )}
      {job && job.skipped.length > 0 && (
        <>
          {" "}
          <Press className={`ml-2 ${link}`} onClick={() => setReading(true)}>
            which
          </Press>
          {reading && <Skipped name={d.name} job={job} close={() => setReading(false)} />}
        </>
      )}
    </div>
  );
}

/** Why everything is asked for again at times. */
const wholeHint = (d: Database, everyDays: number) =>
  [
    "Requests all records again, including those that have not changed.",
    d.deletedRecord !== "persistent" &&
      `This service does not report deleted records; only a full harvest shows which are gone. ` +
        `A full harvest also runs automatically every ${count(everyDays)} days.`,
    d.wholeAt && `Last: ${ago(d.wholeAt)}.`,
  ]
    .filter(Boolean)
    .join(" ");

/** The records of a harvest that could not be read. */
function Skipped({ name, job, close }: { name: string; job: Dto<"JobDto">; close: () => void }) {
  return (
    <Sheet open onOpenChange={close} title={`Records of ${name} that could not be read`} hint={job.message} width={720}>
      <ul className="text-[12.5px]">
        {job.skipped.map((s) => (
          <li key={s.identifier} className="border-t border-soft py-1.5">
            <code className="block font-mono text-[12px] break-all">{s.identifier}</code>
            <span className="text-quiet">{s.why}</span>
          </li>
        ))}
      </ul>
      {job.skippedCount > job.skipped.length && (
        <p className="mt-3 text-[12.5px] text-quiet">
          These are the first {count(job.skipped.length)} of {count(job.skippedCount)}.
        </p>
      )}
    </Sheet>
  );
}

function Overlap({ databases }: { databases: readonly Database[] }) {
  return (
    <section className="overflow-x-auto px-[18px] py-4 max-sm:px-3">
      <h2 className="mb-2 font-serif text-[15px] font-semibold">
        Overlap: share of each row’s works that the column also holds
      </h2>
      <table className="border-separate border-spacing-0.5 text-[12px]">
        <thead>
          <tr className="text-[11.5px] text-quiet">
            <th />
            {databases.map((d) => (
              <th key={d.id} className="px-2 font-medium">
                {d.name}
              </th>
            ))}
            <th className="px-2 font-medium" title="Works that would be lost without this database and its extracts">
              only here
            </th>
          </tr>
        </thead>
        <tbody>
          {databases.map((row) => (
            <tr key={row.id}>
              <th className="pr-4 text-left font-medium text-quiet">{row.name}</th>
              {databases.map((column) => {
                const shared = row.overlap.find((o) => o.databaseId === column.id)?.works;
                const share = shared === undefined || row.works === 0 ? null : Math.round((100 * shared) / row.works);
                return (
                  <td
                    key={column.id}
                    className="h-[24px] min-w-[72px] rounded-sm text-center"
                    style={
                      share === null
                        ? undefined
                        : { background: `color-mix(in srgb, var(--measure) ${Math.round(share * 0.6)}%, var(--paper))` }
                    }
                    title={shared === undefined ? undefined : `${count(shared)} of ${count(row.works)} works`}
                  >
                    {share === null ? "" : `${share} %`}
                  </td>
                );
              })}
              <td className="text-center font-bold">{count(row.onlyHere)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
