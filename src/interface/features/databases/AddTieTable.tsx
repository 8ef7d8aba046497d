import { useState } from "react";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { FileInput, Input } from "../../ui/Input";
import { Labelled } from "../../ui/Labelled";
import { Sheet } from "../../ui/Sheet";
import { useAddTieTable } from "../../review/useTieSources";

/** Adds citations from a table: a file, and the name under which counts will speak of it. */
export function AddTieTable({ close }: { close: () => void }) {
  const [file, setFile] = useState<File | null>(null);
  const [name, setName] = useState("");
  const add = useAddTieTable();
  const ready = file !== null && name.trim() !== "" && !add.isPending;
  return (
    <Sheet
      open
      onOpenChange={close}
      title="Add citations from a table"
      hint={
        "A CSV file in which each row has the DOI of a work that cites and the DOI of the work it cites. The columns are " +
        "found by “citing” and “cited” in their names. The citations hold for every review, and trails say where they come from."
      }
      width={620}
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (ready) add.mutate({ file, name: name.trim() }, { onSuccess: close });
        }}
      >
        <FileInput
          accept=".csv,.tsv,.txt,text/csv,text/plain"
          aria-label="Table of citations"
          onChange={(e) => {
            const chosen = e.target.files?.[0] ?? null;
            add.reset();
            setFile(chosen);
            if (chosen && name === "") setName(chosen.name.replace(/\.[a-z]{3}$/i, "").slice(0, 80));
          }}
          className="mb-4 block"
        />
        <Labelled label="Name">
          {(tied) => (
            <Input {...tied} className="w-full" value={name} maxLength={80} onChange={(e) => setName(e.target.value)} />
          )}
        </Labelled>
        {add.error && (
          <div className="mt-4">
            <Fault error={add.error} />
          </div>
        )}
        <div className="mt-5 flex items-center gap-3">
          <Button kind="primary" type="submit" disabled={!ready}>
            Add its citations
          </Button>
          <span className="text-[12.5px] text-quiet" role="status">
            {add.isPending && "The table is being read …"}
          </span>
        </div>
      </form>
    </Sheet>
  );
}
