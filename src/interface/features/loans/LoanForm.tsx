import type { Dto } from "../../api/client";
import { Field } from "../../ui/Field";
import { Select } from "../../ui/Input";
import { Labelled } from "../../ui/Labelled";
import { faultWord } from "./faultWords";

type Fields = Dto<"LoanFields">;
type Key = Exclude<keyof Fields, "isPart" | "service" | "kind">;

/** Fields with how many of the four columns they take, and where they are of use. */
const rows: readonly { name: Key; label: string; span: string; where?: (f: Fields) => boolean }[] = [
  { name: "title", label: "Title", span: "col-span-4" },
  { name: "people", label: "People", span: "col-span-4" },
  { name: "in", label: "In (journal or book)", span: "col-span-4" },
  { name: "volume", label: "Volume", span: "" },
  { name: "issue", label: "Issue", span: "" },
  { name: "pages", label: "Pages or number", span: "" },
  { name: "date", label: "Year or date", span: "" },
  { name: "publisher", label: "Publisher", span: "col-span-2" },
  { name: "edition", label: "Edition", span: "", where: (f) => isBook(f) || (f.edition ?? "") !== "" },
  { name: "issn", label: "ISSN", span: "", where: (f) => f.kind !== "Book" || (f.issn ?? "") !== "" },
  { name: "isbn", label: "ISBN", span: "", where: (f) => isBook(f) || (f.isbn ?? "") !== "" },
  { name: "doi", label: "DOI", span: "col-span-2" },
];

const isBook = (f: Fields) => f.kind === "Book" || f.kind === "Chapter" || f.kind === "Report" || f.kind === "Thesis";

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
    <div className="grid grid-cols-4 gap-x-3 gap-y-2 max-sm:grid-cols-2">
      {rows
        .filter(({ where }) => where?.(fields) ?? true)
        .map(({ name, label, span }) => (
          <Field
            key={name}
            label={label}
            value={fields[name] ?? ""}
            maxLength={1000}
            fault={faultOf(name)}
            className={`${span} ${span && "max-sm:col-span-2"}`}
            onChange={(e) => change({ ...fields, [name]: e.target.value })}
          />
        ))}
      <Labelled label="Wanted as" fault={faultOf("service")} className="col-span-2">
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
      <Field
        label="Note to the desk"
        className="col-span-full"
        value={fields.note ?? ""}
        maxLength={1000}
        fault={faultOf("note")}
        onChange={(e) => change({ ...fields, note: e.target.value })}
      />
    </div>
  );
}
