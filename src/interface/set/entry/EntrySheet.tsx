import { useState } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Sheet } from "../../ui/Sheet";
import { useSay } from "../../ui/Toasts";
import { ago } from "../../ui/numbers";
import { EntryForm, formFoot } from "./EntryForm";
import { faultsOf, SaveFault } from "./NewEntrySheet";
import { useChangeEntry, useEntry, useRemoveEntry } from "./useEntries";

/** A custom entry as it was typed, to change or to remove. */
export function EntrySheet({ reviewId, entryId, close }: { reviewId: number; entryId: number; close: () => void }) {
  const entry = useEntry(reviewId, entryId);
  return (
    <Sheet
      open
      onOpenChange={close}
      title="A custom entry"
      hint={entry.data ? `Added by ${entry.data.by} ${ago(entry.data.at)}.` : ""}
      width={760}
    >
      {entry.error && <Fault error={entry.error} />}
      {entry.data && <Existing key={entry.data.id} reviewId={reviewId} entry={entry.data} close={close} />}
    </Sheet>
  );
}

function Existing({ reviewId, entry, close }: { reviewId: number; entry: Dto<"EntryDto">; close: () => void }) {
  const [fields, setFields] = useState(entry.fields);
  const say = useSay();
  const change = useChangeEntry(reviewId, entry.id, () => {
    say("Saved.");
    close();
  });
  const remove = useRemoveEntry(reviewId, entry.id, (isRemoved) => {
    if (!isRemoved) {
      say("The entry is back.");
      return;
    }
    say("The entry was removed.", { label: "Undo", run: () => remove.mutate(false) });
    close();
  });
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        change.mutate(fields);
      }}
    >
      <fieldset disabled={!entry.mayChange} className="min-w-0">
        <EntryForm fields={fields} faults={faultsOf(change.error)} onChange={setFields} />
      </fieldset>
      <SaveFault error={change.error} />
      {entry.mayChange ? (
        <div className={formFoot}>
          <Button type="submit" kind="primary" disabled={change.isPending || fields.title.trim() === ""}>
            {change.isPending ? "Saving …" : "Save"}
          </Button>
          <Button onClick={close}>Cancel</Button>
          <Button className="ml-auto" disabled={remove.isPending} onClick={() => remove.mutate(true)}>
            Remove the entry
          </Button>
        </div>
      ) : (
        <p className="mt-4 text-[13px] text-quiet">Only {entry.by} or a curator can change it.</p>
      )}
    </form>
  );
}
