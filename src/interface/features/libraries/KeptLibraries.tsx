import { useState } from "react";
import type { Dto } from "../../api/client";
import { useBringHoldings, useRefreshHoldings, useRemoveLibrary } from "../../set/library/useLibraries";
import { count } from "../../ui/numbers";
import { TextButton } from "../../ui/TextButton";
import { LibraryDesks } from "./LibraryDesks";
import { holdingsFault, holdingsWords } from "./holdingsWords";

type Library = Dto<"LibraryDto">;

/** All libraries of the installation, for curators: their holdings and what of these could not be read. */
export function KeptLibraries({ libraries }: { libraries: readonly Library[] }) {
  if (libraries.length === 0) return null;
  return (
    <>
      <h3 className="text-[12.5px] font-semibold">Libraries of this installation</h3>
      <ul className="mb-3 divide-y divide-line text-[12.5px]">
        {libraries.map((l) => (
          <Kept key={l.id} library={l} />
        ))}
      </ul>
    </>
  );
}

function Kept({ library: l }: { library: Library }) {
  const refresh = useRefreshHoldings();
  const remove = useRemoveLibrary();
  const bring = useBringHoldings();
  const [sure, setSure] = useState(false);
  const [desks, setDesks] = useState(false);
  return (
    <li className="py-2">
      <p>
        <b className="font-semibold">{l.label}</b> <span className="text-quiet">· {holdingsWords(l)}</span>
      </p>
      {holdingsFault(l) && <p className="text-aside">{holdingsFault(l)}</p>}
      {l.unread > 0 && (
        <p className="text-quiet">
          {count(l.unread)} {l.unread === 1 ? "line" : "lines"} could not be read, the first: line{" "}
          {l.faults.join("; line ")}.
        </p>
      )}
      <p className="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1">
        {l.holdingsAddress ? (
          <TextButton onClick={() => refresh.mutate(l.id)}>Fetch its holdings now</TextButton>
        ) : (
          <label className="cursor-pointer underline decoration-line underline-offset-2 hover:decoration-ink">
            Add new holdings
            <input
              type="file"
              accept=".tsv,.txt,.csv,text/tab-separated-values,text/plain"
              aria-label={`New holdings of ${l.label}`}
              className="sr-only"
              onChange={(e) => {
                const file = e.target.files?.[0];
                if (file) bring.mutate({ id: l.id, file });
                e.target.value = "";
              }}
            />
          </label>
        )}
        {sure ? (
          <>
            <span>Remove it for everyone?</span>
            <TextButton onClick={() => remove.mutate(l.id)}>Remove it</TextButton>
            <TextButton className="text-quiet" onClick={() => setSure(false)}>
              Keep it
            </TextButton>
          </>
        ) : (
          <TextButton className="text-quiet" onClick={() => setSure(true)}>
            Remove
          </TextButton>
        )}
        <TextButton aria-expanded={desks} onClick={() => setDesks(!desks)}>
          Loan desks
        </TextButton>
      </p>
      {desks && <LibraryDesks library={l.id} identifier={l.identifier} />}
    </li>
  );
}
