import { useState } from "react";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Field } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";
import { count } from "../../ui/numbers";
import { AboutAddresses } from "./AboutAddresses";
import { Formats } from "./Formats";
import { useAddDatabase, useLook } from "../../review/useDatabases";
import { Select } from "../../ui/Input";

/** Adds a database: first asks the address who it is and shows what its formats tell, then copies. */
export function AddDatabase({ close }: { close: () => void }) {
  const [address, setAddress] = useState("");
  const [format, setFormat] = useState("");
  const [set, setSet] = useState("");
  const [trusted, setTrusted] = useState(false);
  const look = useLook();
  const add = useAddDatabase();
  const found = look.data;
  const chosen = format || (found?.bestFormat ?? null);
  return (
    <Sheet
      open
      onOpenChange={close}
      title="Add a database by its address"
      hint="Any service that speaks OAI-PMH 2.0. Nothing is copied before you have seen what it offers."
      width={860}
    >
      <form
        className="flex items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          setFormat("");
          setSet("");
          look.mutate({ address, set: null });
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
          {look.isPending ? "Asking …" : "Check the address"}
        </Button>
      </form>
      {!found && !look.error && (
        <div className="mt-5">
          <AboutAddresses />
        </div>
      )}
      {look.error && <div className="mt-4">{<Fault error={look.error} />}</div>}
      {found && (
        <div className="mt-5">
          <h3 className="font-serif text-[16px] font-semibold">{found.name}</h3>
          <p className="text-[13px] text-quiet">{found.description}</p>
          <p className="mt-1 text-[12.5px] text-quiet">
            {found.total !== null && `${count(found.total)} records. `}Reports deleted records: {found.deletedRecord}.
            Dates to the {found.granularity.length > 10 ? "second" : "day"}.
          </p>
          <div className="mt-3 flex flex-wrap items-end gap-4">
            <label className="text-[12.5px] font-semibold">
              Set
              <Select
                value={set}
                onChange={(e) => {
                  setSet(e.target.value);
                  setFormat("");
                  look.mutate({ address, set: e.target.value || null });
                }}
                className="mt-1 block h-9 max-w-[260px] text-[13px] font-normal"
              >
                <option value="">all records</option>
                {found.sets.map((s) => (
                  <option key={s.spec} value={s.spec}>
                    {s.name}
                  </option>
                ))}
              </Select>
            </label>
            <label className="flex h-9 items-center gap-2 text-[12.5px]">
              <input
                type="checkbox"
                checked={trusted}
                onChange={(e) => setTrusted(e.target.checked)}
                className="accent-[var(--pine)]"
              />
              curated: prefer its values where databases disagree
            </label>
          </div>
          <div className="mt-4">
            <Formats formats={found.formats} best={found.bestFormat} chosen={chosen} choose={setFormat} />
          </div>
          {add.error && <div className="mt-4">{<Fault error={add.error} />}</div>}
          <div className="mt-4 flex gap-2">
            <Button
              kind="primary"
              disabled={add.isPending || chosen === null}
              onClick={() => add.mutate({ address, format: chosen, set: set || null, trusted }, { onSuccess: close })}
            >
              Add and harvest
            </Button>
            <Button onClick={close}>Cancel</Button>
          </div>
          {found.bestFormat === null && (
            <p className="mt-2 text-[12.5px] text-aside">
              It offers no format that Zendle reads: MODS, OpenAIRE, DataCite, MARCXML, JATS, METS with MODS, Dublin
              Core.
            </p>
          )}
        </div>
      )}
    </Sheet>
  );
}
