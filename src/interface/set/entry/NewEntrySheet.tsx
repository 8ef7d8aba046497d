import { useState } from "react";
import { Problem } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Field } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";
import { useSay } from "../../ui/Toasts";
import { EntryForm, formFoot } from "./EntryForm";
import { emptyEntry, useAddEntries, useReadPrinted, type EntryFields } from "./useEntries";

/** Adds a work that no database has: a planned paper, a report, a reference that nothing matched. */
export function NewEntrySheet({
  reviewId,
  start = emptyEntry,
  title = "A custom entry",
  hint = "A work that no database has: a report, a planned paper. Everyone who uses this Zendle can find it.",
  close,
  onAdded,
  onShow,
}: {
  reviewId: number;
  /** What the form begins with. */
  start?: EntryFields;
  title?: string;
  hint?: string;
  close: () => void;
  /** Told the work that the entry is now. */
  onAdded?: (workId: number, title: string) => void;
  /** Shows that work when a person asks for it. */
  onShow?: (workId: number) => void;
}) {
  const [fields, setFields] = useState(start);
  const [printed, setPrinted] = useState("");
  const readPrinted = useReadPrinted();
  const say = useSay();
  const add = useAddEntries(reviewId, ({ works, joined }) => {
    const work = works[0] ?? 0;
    say(
      joined > 0
        ? "Added. A database has this work, too; the entry was joined with it."
        : "Added to the custom entries.",
      onShow && { label: "Show it", run: () => onShow(work) },
    );
    onAdded?.(work, fields.title);
    close();
  });
  const isFilled = start !== emptyEntry;
  return (
    <Sheet open onOpenChange={close} title={title} hint={hint} width={760}>
      {!isFilled && (
        <form
          className="mb-4 flex items-end gap-2 border-b border-line pb-4"
          onSubmit={(e) => {
            e.preventDefault();
            readPrinted.mutate([printed], { onSuccess: ([read]) => read && setFields(read) });
          }}
        >
          <Field
            label="Fill the form from a reference (optional)"
            placeholder="Paste it in any style"
            value={printed}
            onChange={(e) => setPrinted(e.target.value)}
            className="flex-1"
          />
          <Button type="submit" className="h-9" disabled={printed.trim() === "" || readPrinted.isPending}>
            Fill in
          </Button>
        </form>
      )}
      {readPrinted.error && (
        <div className="mb-4">
          <Fault error={readPrinted.error} />
        </div>
      )}
      <form
        onSubmit={(e) => {
          e.preventDefault();
          add.mutate([fields]);
        }}
      >
        <EntryForm fields={fields} faults={faultsOf(add.error)} onChange={setFields} />
        <SaveFault error={add.error} />
        <div className={formFoot}>
          <Button type="submit" kind="primary" disabled={add.isPending || fields.title.trim() === ""}>
            {add.isPending ? "Adding …" : "Add this entry"}
          </Button>
          <Button onClick={close}>Cancel</Button>
        </div>
      </form>
    </Sheet>
  );
}

/** What is wrong with single fields, by their names. */
export const faultsOf = (error: unknown) => (error instanceof Problem ? error.fields : {});

/** A fault that no field of the form shows. */
export function SaveFault({ error }: { error: unknown }) {
  if (!error || Object.keys(faultsOf(error)).length > 0) return null;
  return (
    <div className="mt-3">
      <Fault error={error} />
    </div>
  );
}
