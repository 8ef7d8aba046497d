import { useState } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { count } from "../../ui/numbers";

type Format = Dto<"FormatDto">;
type Preview = Dto<"PreviewRecordDto">;

/**
 * The formats of a service side by side: what the first records of each tell, and one record as it is read from each.
 * The one whose records tell most is chosen; a curator may take another.
 */
export function Formats({
  formats,
  best,
  chosen,
  choose,
}: {
  formats: readonly Format[];
  best: string | null;
  chosen: string | null;
  choose: (prefix: string) => void;
}) {
  const tried = formats.filter((f) => f.name !== null);
  const unread = formats.filter((f) => f.name === null);
  const fields = tried.find((f) => f.fields.length > 0)?.fields ?? [];
  return (
    <section>
      <h4 className="text-[12.5px] font-semibold">
        Formats, compared on their first {count(Math.max(0, ...tried.map((f) => f.records)))} records
      </h4>
      <div className="mt-1 overflow-x-auto">
        <table className="w-full text-[12.5px]" aria-label="What each format contains">
          <thead>
            <tr className="align-bottom">
              <td className="w-[120px]" />
              {tried.map((f) => (
                <th key={f.prefix} scope="col" className="min-w-[104px] px-2 py-1 text-left font-semibold">
                  <label className="flex items-start gap-1.5">
                    <input
                      type="radio"
                      name="format"
                      value={f.prefix}
                      checked={chosen === f.prefix}
                      disabled={f.fault !== null}
                      onChange={() => choose(f.prefix)}
                      className="mt-[3px] accent-[var(--pine)]"
                    />
                    <span>
                      {f.name}
                      <span className="block text-[11.5px] font-normal text-quiet">
                        {f.prefix}
                        {f.prefix === best && " · most complete"}
                      </span>
                    </span>
                  </label>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {fields.map((field, i) => (
              <tr key={field.field} className="border-t border-soft">
                <th scope="row" className="py-[3px] text-left font-normal text-quiet">
                  {field.field}
                </th>
                {tried.map((f) => (
                  <td key={f.prefix} className="px-2 py-[3px]">
                    {f.fault === null && <Share n={f.fields[i]?.count ?? 0} of={f.records} />}
                  </td>
                ))}
              </tr>
            ))}
            <tr className="border-t border-line font-semibold">
              <th
                scope="row"
                className="py-[3px] text-left font-semibold"
                title="Title and abstract count most, then people; DOI, references and year; then the rest"
              >
                weighted score
              </th>
              {tried.map((f) => (
                <td key={f.prefix} className="px-2 py-[3px]">
                  {f.records > 0 && `${count(f.worth)} %`}
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      </div>
      {tried
        .filter((f) => f.fault !== null)
        .map((f) => (
          <p key={f.prefix} className="mt-1 text-[12px] text-aside">
            {f.name} ({f.prefix}): {f.fault}
          </p>
        ))}
      {unread.length > 0 && (
        <p className="mt-1 text-[12px] text-quiet">
          Also on offer, but not read by Zendle: {unread.map((f) => f.prefix).join(", ")}.
        </p>
      )}
      <SideBySide formats={tried.filter((f) => f.preview.length > 0)} chosen={chosen} />
    </section>
  );
}

function Share({ n, of }: { n: number; of: number }) {
  if (of === 0) return <span className="text-faint">–</span>;
  const share = Math.round((100 * n) / of);
  return (
    <span className="flex items-center gap-1.5" title={`${count(n)} of ${count(of)} records`}>
      <i className="block h-[5px] w-12 overflow-hidden rounded bg-soft" aria-hidden="true">
        <i className="block h-full bg-[var(--measure)]" style={{ width: `${share}%` }} />
      </i>
      <span className={share === 0 ? "text-faint" : ""}>{share} %</span>
    </span>
  );
}

/** The rows in which records of several formats are held against each other. */
const rows: readonly { label: string; of: (r: Preview) => string }[] = [
  { label: "title", of: (r) => r.title },
  { label: "people", of: (r) => r.people },
  { label: "year", of: (r) => (r.year === null ? "" : String(r.year)) },
  { label: "type", of: (r) => r.type },
  { label: "venue", of: (r) => r.venue ?? "" },
  { label: "DOI", of: (r) => r.doi ?? "" },
  { label: "language", of: (r) => r.language ?? "" },
  { label: "abstract", of: (r) => r.abstract },
  { label: "keywords, subjects", of: (r) => (r.terms > 0 ? count(r.terms) : "") },
  { label: "references", of: (r) => (r.references > 0 ? count(r.references) : "") },
  { label: "copies", of: (r) => (r.copies > 0 ? count(r.copies) : "") },
  { label: "licence", of: (r) => r.licence ?? "" },
];

/** One record as it is read from each format. Records go together by their identifier. */
function SideBySide({ formats, chosen }: { formats: readonly Format[]; chosen: string | null }) {
  const [at, setAt] = useState(0);
  const lead = formats.find((f) => f.prefix === chosen) ?? formats[0];
  const record = lead?.preview[Math.min(at, lead.preview.length - 1)];
  if (!lead || !record) return null;
  const same = formats.map((f) => f.preview.find((r) => r.identifier === record.identifier));
  return (
    <section className="mt-5" aria-label="The same record from each format">
      <div className="flex items-center gap-2">
        <h4 className="text-[12.5px] font-semibold">
          Record {count(at + 1)} of the first {count(lead.preview.length)}, as Zendle reads it
        </h4>
        <Button className="h-7" disabled={at === 0} onClick={() => setAt(at - 1)}>
          previous
        </Button>
        <Button className="h-7" disabled={at >= lead.preview.length - 1} onClick={() => setAt(at + 1)}>
          next
        </Button>
      </div>
      <div className="mt-1 overflow-x-auto">
        <table className="w-full table-fixed text-[12.5px]">
          <thead>
            <tr>
              <td className="w-[92px]" />
              {formats.map((f) => (
                <th
                  key={f.prefix}
                  scope="col"
                  className={`w-[200px] px-2 py-1 text-left font-semibold ${f.prefix === chosen ? "text-pine" : ""}`}
                >
                  {f.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows
              .filter((row) => same.some((r) => r && row.of(r) !== ""))
              .map((row) => (
                <tr key={row.label} className="border-t border-soft align-baseline">
                  <th scope="row" className="py-1 text-left font-normal text-quiet">
                    {row.label}
                  </th>
                  {formats.map((f, i) => {
                    const r = same[i];
                    return (
                      <td key={f.prefix} className="px-2 py-1 break-words">
                        {r ? row.of(r) || <span className="text-faint">–</span> : ""}
                      </td>
                    );
                  })}
                </tr>
              ))}
            {same.some((r) => !r || r.notes.length > 0) && (
              <tr className="border-t border-soft align-baseline">
                <th scope="row" className="py-1 text-left font-normal text-quiet">
                  notes
                </th>
                {formats.map((f, i) => (
                  <td key={f.prefix} className="px-2 py-1 text-[12px] text-quiet">
                    {same[i] ? same[i].notes.join(" ") : "not among its first records"}
                  </td>
                ))}
              </tr>
            )}
          </tbody>
        </table>
      </div>
    </section>
  );
}
