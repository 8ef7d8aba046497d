import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Field } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";
import { TextButton } from "../../ui/TextButton";
import { count, works } from "../../ui/numbers";
import type { Place } from "../useSet";
import { archiveAddress, useNameTemplate, useTextArchive } from "./useTexts";

const megabyte = 1_000_000;

/** Hands on the texts in hand of the set in view as one archive, each file under a name of one's own making. */
export function TextsSheet({ place, close }: { place: Place; close: () => void }) {
  const [template, setTemplate] = useNameTemplate(place.reviewId);
  const archive = useTextArchive(place, template);
  const told = archive.data;
  const named = template ?? told?.usual ?? "";
  const fault = told?.fault ?? null;
  return (
    <Sheet
      open
      onOpenChange={close}
      title="Texts as one archive"
      hint={
        "A zip with the PDFs in hand and a table, manifest.csv, of all works of this set: where each text came from, " +
        "and which works have none."
      }
      width={620}
    >
      {archive.error && <Fault error={archive.error} again={() => void archive.refetch()} />}
      <Field
        label="Name each file"
        value={named}
        maxLength={200}
        fault={fault}
        autoFocus
        onChange={(e) => setTemplate(e.target.value)}
      />
      <p className="mt-1.5 flex flex-wrap items-baseline gap-x-2.5 text-[12.5px] text-quiet">
        Put in:
        {told?.parts.map((part) => (
          <TextButton key={part} className="min-h-6" onClick={() => setTemplate(`${named.trimEnd()} {${part}}`)}>
            {part}
          </TextButton>
        ))}
        {template !== null && (
          <TextButton className="ml-auto min-h-6" onClick={() => setTemplate(null)}>
            as usual
          </TextButton>
        )}
      </p>
      {told && (
        <>
          <p className="mt-4 text-[13px]">
            <b className="font-semibold">{count(told.texts)}</b> {told.texts === 1 ? "text" : "texts"} of{" "}
            {works(told.withText)}, {(told.bytes / megabyte).toFixed(1)} MB
            {told.works > told.withText && `; ${works(told.works - told.withText)} of this set have no text in hand`}.
          </p>
          {told.names.length > 0 && (
            <ul aria-label="How files are named" className="mt-2 grid gap-1 text-[12.5px] text-quiet">
              {told.names.map((name) => (
                <li key={name} className="truncate">
                  {name}
                </li>
              ))}
              {told.texts > told.names.length && <li>and {count(told.texts - told.names.length)} more</li>}
            </ul>
          )}
        </>
      )}
      <div className="mt-4">
        <Button
          kind="primary"
          disabled={!told || told.texts === 0 || fault !== null}
          onClick={() => {
            window.location.assign(archiveAddress(place, template));
            close();
          }}
        >
          Fetch the archive
        </Button>
      </div>
    </Sheet>
  );
}
