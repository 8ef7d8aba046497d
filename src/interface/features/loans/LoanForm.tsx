import type { Dto } from "../../api/client";
import { Field } from "../../ui/Field";
import { Select } from "../../ui/Input";
import { Labelled } from "../../ui/Labelled";
import { faultWord } from "./faultWords";

type Fields = Dto<"LoanFields">;
type Key = Exclude<keyof Fields, "isPart" | "service" | "kind">;

const rows: readonly { name: Key; label: string; wide?: boolean }[] = [
  { name: "title", label: "Title", wide: true },
  { name: "people", label: "People", wide: true },
  { name: "in", label: "In (journal or book)", wide: true },
  { name: "volume", label: "Volume" },
  { name: "issue", label: "Issue" },
  { name: "pages", label: "Pages or article number" },
  { name: "date", label: "Year or date" },
  { name: "publisher", label: "Publisher" },
  { name: "edition", label: "Edition" },
  { name: "issn", label: "ISSN" },
  { name: "isbn", label: "ISBN" },
  { name: "doi", label: "DOI" },
  { name: "note", label: "Note to the desk", wide: true },
];

/** What a request says of a work: filled from its records, to be read and mended before it is sent. */
export function LoanForm({
  fields,
  faults,
  change,
}: {
  fields: Fields;
  faults: readonly Dto<"LoanFieldFault">[];
  change: (fields: Fields) => void;
}) {
  const faultOf = (name: string) => {
    const fault = faults.find((f) => f.field.toLowerCase() === name.toLowerCase());
    return fault ? faultWord(fault.fault) : null;
  };
  return (
    <div className="grid grid-cols-3 gap-x-3 gap-y-2 max-sm:grid-cols-1">
      {rows.map(({ name, label, wide }) => (
        <Field
          key={name}
          label={label}
          value={fields[name] ?? ""}
          maxLength={1000}
          fault={faultOf(name)}
          className={wide ? "col-span-full" : ""}
          onChange={(e) => change({ ...fields, [name]: e.target.value })}
        />
      ))}
      <Labelled label="Wanted as" fault={faultOf("service")}>
        {(tied) => (
          <Select
            {...tied}
            className="h-9 w-full text-[14px]"
            value={fields.service}
            onChange={(e) => change({ ...fields, service: e.target.value === "Loan" ? "Loan" : "Copy" })}
          >
            <option value="Copy">a copy to keep</option>
            <option value="Loan">a loan to return</option>
          </Select>
        )}
      </Labelled>
    </div>
  );
}
