import { useState } from "react";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Field } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";
import { count } from "../../ui/numbers";
import { useAddDatabase, useLook } from "./useDatabases";

/** Adds a database: first asks the address who it is and shows ten of its records, then copies. */
export function AddDatabase({ close }: { close: () => void }) {
  const [address, setAddress] = useState("");
  const [format, setFormat] = useState("");
  const [set, setSet] = useState("");
  const [trusted, setTrusted] = useState(false);
  const look = useLook();
  const add = useAddDatabase();
  const found = look.data;
  return (
    <Sheet
      open
      onOpenChange={close}
      title="Add a database by its address"
      hint="Any service that speaks OAI-PMH 2.0. Nothing is copied before you have seen what it offers."
      width={720}
    >
      <form
        className="flex items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          setFormat("");
          setSet("");
          look.mutate({ address, format: null, set: null });
        }}
      >
        <Field
          label="Address"
          value={address}
          onChange={(e) => setAddress(e.target.value)}
          placeholder="https://repository.example/oai"
          className="flex-1"
          autoFocus
          required
        />
        <Button type="submit" kind={found ? "plain" : "primary"} className="h-9" disabled={look.isPending}>
          {look.isPending ? "Asking …" : "Ask who it is"}
        </Button>
      </form>
      {look.error && <div className="mt-4">{<Fault error={look.error} />}</div>}
      {found && (
        <div className="mt-5">
          <h3 className="font-serif text-[16px] font-semibold">{found.name}</h3>
          <p className="text-[13px] text-quiet">{found.description}</p>
          <p className="mt-1 text-[12.5px] text-quiet">
            {found.total !== null && `${count(found.total)} records. `}Tells of deletions: {found.deletedRecord}. Dates
            to the {found.granularity.length > 10 ? "second" : "day"}.
          </p>
          <div className="mt-3 flex flex-wrap items-end gap-4">
            <label className="text-[12.5px] font-semibold">
              Format
              <select
                value={format || (found.bestFormat ?? "")}
                onChange={(e) => {
                  setFormat(e.target.value);
                  look.mutate({ address, format: e.target.value, set: set || null });
                }}
                className="mt-1 block h-9 rounded-md border border-edge bg-raised px-2 text-[13px] font-normal"
              >
                {found.formats.map((f) => (
                  <option key={f.prefix} value={f.prefix}>
                    {f.prefix}
                  </option>
                ))}
              </select>
            </label>
            <label className="text-[12.5px] font-semibold">
              Set
              <select
                value={set}
                onChange={(e) => {
                  setSet(e.target.value);
                  look.mutate({ address, format: format || null, set: e.target.value || null });
                }}
                className="mt-1 block h-9 max-w-[260px] rounded-md border border-edge bg-raised px-2 text-[13px] font-normal"
              >
                <option value="">all records</option>
                {found.sets.map((s) => (
                  <option key={s.spec} value={s.spec}>
                    {s.name}
                  </option>
                ))}
              </select>
            </label>
            <label className="flex h-9 items-center gap-2 text-[12.5px]">
              <input
                type="checkbox"
                checked={trusted}
                onChange={(e) => setTrusted(e.target.checked)}
                className="accent-[var(--pine)]"
              />
              curated: believe it before the others
            </label>
          </div>
          <table className="mt-4 w-full text-[12.5px]">
            <caption className="mb-1 text-left font-semibold">
              The first {found.preview.length} records, as Zendle reads them
            </caption>
            <tbody>
              {found.preview.map((r) => (
                <tr key={r.identifier} className="border-t border-soft align-baseline">
                  <td className="w-11 py-1 text-quiet">{r.year ?? "n.d."}</td>
                  <td className="py-1 font-serif text-[13.5px]">
                    {r.title || "without a title"}
                    <span className="block font-sans text-[12px] text-quiet">{r.people}</span>
                  </td>
                  <td className="w-[110px] py-1 text-right text-quiet">
                    {r.type}
                    <span className="block">
                      {r.hasAbstract ? "abstract" : "no abstract"}
                      {r.references > 0 && `, ${r.references} refs`}
                    </span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {add.error && <div className="mt-4">{<Fault error={add.error} />}</div>}
          <div className="mt-4 flex gap-2">
            <Button
              kind="primary"
              disabled={add.isPending || found.bestFormat === null}
              onClick={() =>
                add.mutate(
                  { address, format: format || found.bestFormat, set: set || null, trusted },
                  { onSuccess: close },
                )
              }
            >
              Add it and harvest
            </Button>
            <Button onClick={close}>Leave it</Button>
          </div>
          {found.bestFormat === null && (
            <p className="mt-2 text-[12.5px] text-aside">
              It offers neither MODS nor Dublin Core, which are what Zendle reads.
            </p>
          )}
        </div>
      )}
    </Sheet>
  );
}
