import { useState } from "react";
import { Link } from "react-router";
import type { Dto } from "../../api/client";
import { NewEntrySheet } from "../../set/entry/NewEntrySheet";
import { emptyEntry } from "../../set/entry/useEntries";
import { Button } from "../../ui/Button";
import { count } from "../../ui/numbers";
import { TextButton } from "../../ui/TextButton";
import type { BroughtFile, Bringing } from "./useBringing";

/** What became of the files a person brought, and what can be done with those that no work was found for. */
export function BroughtFiles({
  reviewId,
  bringing,
  selected,
  onOpen,
}: {
  reviewId: number;
  bringing: Bringing;
  /** The work that is open beside the list; null for none. */
  selected: Dto<"GatherRowDto"> | null;
  onOpen: (workId: number) => void;
}) {
  const { files } = bringing;
  const [entryFor, setEntryFor] = useState<BroughtFile | null>(null);
  if (files.length === 0) return null;
  const open = files.filter((f) => f.state === "waits" || f.state === "sent").length;
  const known = files.filter((f) => f.brought?.textId).length;
  return (
    <section
      aria-label="Files you added"
      className="shrink-0 border-b border-line bg-soft px-[18px] py-2 text-[12.5px]"
    >
      <p className="flex items-baseline gap-3" role="status">
        <b className="font-semibold">
          {count(files.length)} {files.length === 1 ? "file" : "files"} brought
        </b>
        <span className="text-quiet">
          {count(known)} recognised{open > 0 && `, ${count(open)} on the way`}
        </span>
        <span className="ml-auto" />
        {open === 0 && <TextButton onClick={bringing.clear}>Close</TextButton>}
      </p>
      <div className="max-h-[168px] overflow-y-auto" role="region" tabIndex={0} aria-label="Files">
        <ul>
          {files.map((f) => (
            <li
              key={f.id}
              data-file={f.state}
              className="flex flex-wrap items-baseline gap-x-2 border-t border-line py-1"
            >
              <span className="max-w-[34ch] truncate font-semibold" title={f.file.name}>
                {f.file.name}
              </span>
              <Said of={f} reviewId={reviewId} onOpen={onOpen} />
              {f.brought?.unknown && (
                <span className="flex gap-2">
                  {selected && (
                    <Button className="h-7" onClick={() => bringing.assign(f.id, selected.workId)}>
                      It is “{shortened(selected.title)}”
                    </Button>
                  )}
                  <Button className="h-7" onClick={() => setEntryFor(f)}>
                    Add its work …
                  </Button>
                </span>
              )}
            </li>
          ))}
        </ul>
      </div>
      {entryFor && (
        <NewEntrySheet
          reviewId={reviewId}
          start={{
            ...emptyEntry,
            title: entryFor.brought?.unknown?.title ?? "",
            doi: entryFor.brought?.unknown?.doi ?? "",
          }}
          title="The work of this file"
          hint={`No database has the work of “${entryFor.file.name}”. These details were read from the file; please check them.`}
          close={() => setEntryFor(null)}
          onAdded={(workId) => bringing.assign(entryFor.id, workId)}
        />
      )}
    </section>
  );
}

const shortened = (title: string) => (title.length > 42 ? `${title.slice(0, 40)}…` : title);

function Said({ of: f, reviewId, onOpen }: { of: BroughtFile; reviewId: number; onOpen: (workId: number) => void }) {
  if (f.state === "waits") return <span className="text-quiet">waits</span>;
  if (f.state === "sent") return <span className="text-quiet">being identified …</span>;
  if (f.fault !== null) return <span>Not taken: {f.fault}</span>;
  const { brought } = f;
  if (!brought) return null;
  const { workId, textId } = brought;
  if (textId === null || workId === null) return <span>{brought.sentence}</span>;
  return brought.verdict === "Doubtful" ? (
    <span>
      Look at it: {brought.sentence} <TextButton onClick={() => onOpen(workId)}>side by side</TextButton>
    </span>
  ) : (
    <span>
      Recognised: {brought.title}{" "}
      <Link to={`/r/${reviewId}/read/${textId}`} className="underline decoration-line underline-offset-2">
        read
      </Link>
    </span>
  );
}
