import { Field } from "../../ui/Field";
import { Select, TextArea } from "../../ui/Input";
import { Labelled } from "../../ui/Labelled";
import { useKinds, type EntryFields } from "./useEntries";

/** The fields of a custom entry; only the title must be there. */
export function EntryForm({
  fields,
  faults,
  onChange,
}: {
  fields: EntryFields;
  faults: Readonly<Record<string, string>>;
  onChange: (fields: EntryFields) => void;
}) {
  const kinds = useKinds().data ?? [];
  const at = (name: keyof EntryFields) => ({
    value: fields[name],
    fault: faults[name] ?? null,
    onChange: (e: { target: { value: string } }) => onChange({ ...fields, [name]: e.target.value }),
  });
  const venue =
    fields.type === "chapter" ? "Book it is in" : fields.type === "conference paper" ? "Proceedings" : "Journal";
  return (
    <div className="grid grid-cols-6 gap-x-3 gap-y-3 max-sm:grid-cols-2">
      <Field label="Title" className="col-span-6 max-sm:col-span-2" autoFocus {...at("title")} />
      <Labelled label="Kind of document" fault={faults["type"]} className="col-span-2">
        {(tied) => (
          <Select
            {...tied}
            value={fields.type}
            onChange={(e) => onChange({ ...fields, type: e.target.value })}
            className="h-9 w-full text-[14px]"
          >
            <option value="">not said</option>
            {kinds.map((k) => (
              <option key={k}>{k}</option>
            ))}
          </Select>
        )}
      </Labelled>
      <Field label="Year" className="col-span-1" inputMode="numeric" {...at("year")} />
      <Field label="Language" className="col-span-1" {...at("language")} />
      <Field label="DOI" className="col-span-2" {...at("doi")} />
      <Labelled
        label="People, one a line: family name, given names"
        fault={faults["people"]}
        className="col-span-3 row-span-2 max-sm:col-span-2"
      >
        {(tied) => (
          <TextArea {...tied} rows={5} {...plain(at("people"))} className="h-[112px] !py-1.5 !font-sans !text-[14px]" />
        )}
      </Labelled>
      <Field label={venue} className="col-span-3 max-sm:col-span-2" {...at("venue")} />
      <Field label="Volume" className="col-span-1" {...at("volume")} />
      <Field label="Issue" className="col-span-1" {...at("issue")} />
      <Field label="Pages" className="col-span-1" {...at("pages")} />
      <Field label="Publisher or institution" className="col-span-3 max-sm:col-span-2" {...at("publisher")} />
      <Field label="ISBN" className="col-span-1" {...at("isbn")} />
      <Field label="Web address" className="col-span-2" {...at("address")} />
      <Field label="Keywords" className="col-span-6 max-sm:col-span-2" {...at("keywords")} />
      <Labelled label="Abstract" fault={faults["abstract"]} className="col-span-6 max-sm:col-span-2">
        {(tied) => <TextArea {...tied} rows={3} {...plain(at("abstract"))} className="!py-1.5" />}
      </Labelled>
      <Labelled
        label="References it cites, pasted as they stand"
        fault={faults["references"]}
        className="col-span-6 max-sm:col-span-2"
      >
        {(tied) => (
          <TextArea {...tied} rows={3} {...plain(at("references"))} className="!py-1.5 !font-sans !text-[14px]" />
        )}
      </Labelled>
    </div>
  );
}

/** The foot of a form that is longer than its sheet: what saves it stays in sight. */
export const formFoot = "sticky bottom-[-20px] -mx-5 mt-4 -mb-5 flex gap-2 border-t border-line bg-paper px-5 py-3";

const plain = ({ value, onChange }: { value: string; onChange: (e: { target: { value: string } }) => void }) => ({
  value,
  onChange,
});
