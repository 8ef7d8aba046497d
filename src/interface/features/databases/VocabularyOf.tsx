import { useState } from "react";
import type { Dto } from "../../api/client";
import { useSetVocabulary } from "../../review/useDatabases";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Field } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";
import { TextButton } from "../../ui/TextButton";
import { useSay } from "../../ui/Toasts";
import { ago, count } from "../../ui/numbers";

/** The vocabulary that the indexers of a database use: its narrower and broader terms are offered while one searches. */
export function VocabularyOf({ database: d, curator }: { database: Dto<"DatabaseDto">; curator: boolean }) {
  const [isOpen, setOpen] = useState(false);
  const words = d.vocabulary ? `vocabulary: ${count(d.vocabulary.concepts)} terms` : "add a vocabulary";
  if (!curator) return d.vocabulary && <span className="px-1 text-faint">{words}</span>;
  return (
    <>
      <TextButton
        className="px-1 text-quiet"
        title="Controlled vocabulary of this database"
        onClick={() => setOpen(true)}
      >
        {words}
      </TextButton>
      {isOpen && <VocabularySheet database={d} close={() => setOpen(false)} />}
    </>
  );
}

function VocabularySheet({ database: d, close }: { database: Dto<"DatabaseDto">; close: () => void }) {
  const [address, setAddress] = useState(d.vocabulary?.address ?? "");
  const set = useSetVocabulary();
  const say = useSay();
  return (
    <Sheet
      open
      onOpenChange={close}
      title={`Controlled vocabulary of ${d.name}`}
      hint="A file in SKOS (RDF/XML). Searches are offered its alternative, broader and narrower terms."
      width={620}
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          set.mutate(
            { id: d.id, address },
            {
              onSuccess: (concepts) => {
                say(`${count(concepts)} terms were read.`);
                close();
              },
            },
          );
        }}
      >
        <Field
          label="Address of the file"
          placeholder="https://index.example/vocabulary.rdf"
          value={address}
          onChange={(e) => setAddress(e.target.value)}
          hint={d.vocabulary ? `Fetched ${ago(d.vocabulary.fetchedAt)}.` : ""}
        />
        {set.error && (
          <div className="mt-3">
            <Fault error={set.error} />
          </div>
        )}
        <div className="mt-4 flex gap-2">
          <Button type="submit" kind="primary" disabled={set.isPending || address.trim() === ""}>
            {set.isPending ? "Fetching …" : d.vocabulary ? "Fetch it again" : "Fetch it"}
          </Button>
          {d.vocabulary && (
            <Button
              disabled={set.isPending}
              onClick={() => set.mutate({ id: d.id, address: null }, { onSuccess: close })}
            >
              Remove it
            </Button>
          )}
          <Button onClick={close}>Cancel</Button>
        </div>
      </form>
    </Sheet>
  );
}
