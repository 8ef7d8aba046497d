import { useState } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Sheet } from "../../ui/Sheet";
import { moment } from "../../ui/numbers";
import { RulingPreview } from "./RulingPreview";
import { useRecords } from "./useRecords";
import { TextButton } from "../../ui/TextButton";

/** The records of a work side by side, field by field; a curator can part some of them from the others. */
export function RecordsSheet({ workId, open, close }: { workId: number; open: boolean; close: () => void }) {
  const records = useRecords(workId, open);
  return (
    <Sheet
      open={open}
      onOpenChange={(o) => !o && close()}
      title="Records of this work"
      hint={
        "Each database describes a work in its own way. The work shows one value for each " +
        "field: the one with a line before it. ≠ marks fields where the records disagree."
      }
      width={1180}
    >
      {records.isPending && <div aria-busy="true" className="shape h-64" />}
      {records.isError && <Fault error={records.error} />}
      {records.data && <Compared key={records.data.workId} of={records.data} close={close} />}
    </Sheet>
  );
}

function Compared({ of, close }: { of: Dto<"RecordsDto">; close: () => void }) {
  const [ticked, setTicked] = useState<number[]>([]);
  const [asked, setAsked] = useState(false);
  const some = ticked.length > 0 && ticked.length < of.records.length;
  const tick = (id: number) => {
    setAsked(false);
    setTicked((t) => (t.includes(id) ? t.filter((x) => x !== id) : [...t, id]));
  };
  return (
    <>
      <div className="overflow-x-auto">
        <table className="w-full border-collapse text-left align-top text-[12.5px]">
          <thead>
            <tr className="border-b border-edge">
              <td className="w-[108px]" />
              {of.records.map((r) => (
                <th key={r.id} scope="col" className="min-w-[168px] px-2.5 pb-2 align-top font-normal">
                  <b className="font-semibold">{r.database}</b>
                  <span className="block text-[11.5px] break-all text-quiet">{r.identifier}</span>
                  <span className="block text-[11.5px] text-quiet">as of {moment(r.datestamp)}</span>
                  {r.onlyCited && (
                    <span className="block text-[11.5px] text-quiet">known only from reference lists</span>
                  )}
                  {of.canRule && of.records.length > 1 && (
                    <label className="mt-1 flex items-center gap-1.5">
                      <input
                        type="checkbox"
                        className="accent-pine"
                        checked={ticked.includes(r.id)}
                        onChange={() => tick(r.id)}
                      />
                      another work
                    </label>
                  )}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {of.fields.map((f) => (
              <Field key={f.name} field={f} records={of.records} />
            ))}
          </tbody>
        </table>
      </div>
      {of.canRule && of.records.length > 1 && !asked && (
        <p className="mt-3 flex items-center gap-3 text-[12.5px]">
          <Button disabled={!some} onClick={() => setAsked(true)}>
            Split off the ticked records …
          </Button>
          {!some && <span className="text-quiet">Tick the records that describe another work.</span>}
        </p>
      )}
      {asked && <RulingPreview ruling={{ split: { workId: of.workId, records: ticked } }} leave={close} />}
      <Why of={of} />
    </>
  );
}

function Field({ field, records }: { field: Dto<"FieldRowDto">; records: readonly Dto<"RecordColumnDto">[] }) {
  return (
    <tr className="border-b border-line">
      <th scope="row" className="py-1.5 pr-2 align-top font-normal text-quiet">
        {field.name}
        {field.differs && (
          <b
            role="img"
            className="ml-1.5 text-[13px] font-bold text-ink"
            title="The records disagree"
            aria-label="the records disagree"
          >
            ≠
          </b>
        )}
      </th>
      {records.map((r, i) => {
        const taken = field.takenFrom.includes(r.id);
        const value = field.values[i];
        return (
          <td
            key={r.id}
            className={`px-2.5 py-1.5 align-top ${taken ? "border-l-2 border-pine" : "border-l-2 border-transparent"}`}
          >
            {value ? (
              <Value text={value} serif={field.name === "title" || field.name === "abstract"} />
            ) : (
              <span className="text-faint">–</span>
            )}
            {taken && <span className="sr-only"> (shown)</span>}
            {field.origins[i] && <span className="mt-0.5 block text-[11.5px] text-quiet">{field.origins[i]}</span>}
          </td>
        );
      })}
    </tr>
  );
}

const longest = 220;

function Value({ text, serif }: { text: string; serif: boolean }) {
  const [all, setAll] = useState(false);
  const cut = text.length > longest && !all;
  return (
    <span className={serif ? "font-serif" : ""}>
      {cut ? `${text.slice(0, longest)}…` : text}
      {text.length > longest && (
        <TextButton className="ml-1 font-sans text-quiet" onClick={() => setAll(!all)}>
          {all ? "less" : "all of it"}
        </TextButton>
      )}
    </span>
  );
}

/** Why the records are one work: pair by pair, what speaks for it and against it, and what curators ruled. */
function Why({ of }: { of: Dto<"RecordsDto"> }) {
  const name = (id: number) => {
    const record = of.records.find((r) => r.id === id);
    return record ? `${record.database} ${record.identifier.split(":").at(-1) ?? ""}` : "a record of another work";
  };
  if (of.evidence.length + of.rulings.length === 0) return null;
  return (
    <section className="mt-4 border-t border-line pt-2 text-[12.5px]">
      <h3 className="mb-1 font-semibold">Why they are one work</h3>
      <ul className="space-y-0.5">
        {of.evidence.map((e) => (
          <li key={`${e.first} ${e.second}`}>
            <span className="text-quiet">
              {name(e.first)} and {name(e.second)}:
            </span>{" "}
            {e.for.join(", ")}
            {e.against.length > 0 && <span className="text-quiet">; but {e.against.join(", ")}</span>}
            <span className="ml-1.5 text-quiet" title="Sum of the log odds, base 2">
              ({e.score.toFixed(1)})
            </span>
          </li>
        ))}
        {of.rulings.map((r) => (
          <li key={`${r.act} ${r.first} ${r.second}`}>
            <span className="text-quiet">
              {name(r.first)} and {name(r.second)}:
            </span>{" "}
            {r.same ? "one work" : "not one work"}, as a curator ruled on {moment(r.at)}
          </li>
        ))}
      </ul>
    </section>
  );
}
