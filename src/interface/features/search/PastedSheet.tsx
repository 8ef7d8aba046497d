import { useEffect, useState } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { FileInput, TextArea } from "../../ui/Input";
import { Sheet } from "../../ui/Sheet";
import { fileText } from "../../ui/fileText";
import { useSay } from "../../ui/Toasts";
import { count, works } from "../../ui/numbers";
import { NewEntrySheet } from "../../set/entry/NewEntrySheet";
import { useAddEntries, useReadPrinted, type EntryFields } from "../../set/entry/useEntries";
import { useReview } from "../../review/useReviews";
import { useTakeStep, type Place } from "../../set/useSet";
import { PastedEntry } from "./PastedEntry";
import { usePasted, type Pasted } from "./usePasted";

const groups: { verdict: Pasted["verdict"]; title: string; hint: string }[] = [
  { verdict: "Sure", title: "Found", hint: "untick what you do not want" },
  { verdict: "ToConfirm", title: "To confirm", hint: "choose the work each one means; leave it if none does" },
  { verdict: "NotHere", title: "Not in these databases", hint: "no record resembles them" },
];

// The server takes requests of 4 MB; a list of 3,000 references with abstracts fits.
const mostBytes = 3_000_000;

/** References that were pasted, or read from a file, with the works they mean; what is ticked becomes a set. */
export function PastedSheet({ place, start, close }: { place: Place; start: string; close: () => void }) {
  const [text, setText] = useState(start);
  const [note, setNote] = useState("");
  const find = usePasted(place.reviewId);
  const take = useTakeStep(place);
  const say = useSay();
  // By entry the work chosen; null for none. What is sure is chosen to begin with.
  const [chosen, setChosen] = useState<ReadonlyMap<number, number | null>>(new Map());
  // By entry the work that it was added as: a custom entry.
  const [added, setAdded] = useState<ReadonlyMap<number, Dto<"PastedCandidateDto">>>(new Map());
  const [adding, setAdding] = useState<{ i: number; start: EntryFields } | null>(null);
  const readPrinted = useReadPrinted();
  const mayAdd = useReview(place.reviewId).data?.role !== "Reader";
  const { mutate, data } = find;
  useEffect(() => {
    if (start.trim() !== "") mutate(start);
  }, [start, mutate]);
  const entries = (data?.references ?? []).map((found, i) => {
    const own = added.get(i);
    const reference: Pasted = own ? { ...found, verdict: "Sure", candidates: [own] } : found;
    const sure = reference.verdict === "Sure" ? (reference.candidates[0]?.workId ?? null) : null;
    const work = chosen.has(i) ? (chosen.get(i) ?? null) : sure;
    return { i, reference, work };
  });
  const ids = [...new Set(entries.flatMap((e) => (e.work === null ? [] : [e.work])))];
  const notHere = entries.filter((e) => e.reference.verdict === "NotHere");
  const missing = notHere.map((e) => e.reference.text);
  const isAdded = (i: number, workId: number, title: string) =>
    setAdded((old) =>
      new Map(old).set(i, {
        workId,
        title,
        person: null,
        year: null,
        venue: null,
        likeness: null,
        why: ["custom entry"],
      }),
    );
  // What a file of references said is taken as it is; what was printed is read first.
  const addOne = (i: number, { text: printed, fields }: Pasted) => {
    if (fields) setAdding({ i, start: fields });
    else
      readPrinted.mutate([printed], {
        onSuccess: ([start]) => {
          if (start) setAdding({ i, start });
        },
      });
  };
  const addAll = useAddEntries(place.reviewId, ({ works: made }, forms) =>
    notHere.forEach((e, n) => isAdded(e.i, made[n] ?? 0, forms[n]?.title ?? e.reference.text)),
  );
  const addThem = () => {
    const filed = notHere.flatMap((e) => e.reference.fields ?? []);
    if (filed.length === notHere.length) addAll.mutate(filed);
    else readPrinted.mutate(missing, { onSuccess: (forms) => addAll.mutate(forms) });
  };
  const open = async (file: File) => {
    if (file.size > mostBytes) {
      setNote(
        `${file.name} is larger than ${Math.round(mostBytes / 1_000_000)} MB. Choose a smaller file, or paste a part.`,
      );
      return;
    }
    const read = await fileText(file);
    setNote("");
    setText(read);
    if (read.trim() === "") setNote(`${file.name} is empty.`);
    else mutate(read);
  };
  const said = `${count(ids.length)} pasted ${ids.length === 1 ? "reference" : "references"}`;
  const again = () => {
    setChosen(new Map());
    setAdded(new Map());
    find.reset();
  };
  const show = () => {
    take.mutate({ act: { kind: "Among", works: ids, said }, from: 0 }, { onSuccess: close });
  };
  return (
    <Sheet
      open
      onOpenChange={close}
      title="Find references"
      hint="Paste references in any style, titles, DOIs or ISBNs, or a list in RIS, BibTeX, CSL-JSON or CSV: up to 3,000."
      width={880}
    >
      {data === undefined ? (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            if (text.trim() !== "") mutate(text);
          }}
        >
          <TextArea
            aria-label="References"
            rows={12}
            value={text}
            onChange={(e) => setText(e.target.value)}
            autoFocus
            className="mb-3"
          />
          {find.error && (
            <div className="mb-3">
              <Fault error={find.error} />
            </div>
          )}
          <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
            <Button type="submit" kind="primary" disabled={find.isPending || text.trim() === ""}>
              {find.isPending ? "Looking …" : "Find these works"}
            </Button>
            <label className="flex items-center gap-2 text-[13px] text-quiet">
              or
              <FileInput
                accept=".ris,.bib,.json,.csv,.tsv,.txt,text/plain,text/csv"
                aria-label="File of references"
                onChange={(e) => {
                  const file = e.target.files?.[0];
                  if (file) void open(file);
                }}
              />
            </label>
          </div>
          {note && <p className="mt-2 text-[12.5px] text-aside">{note}</p>}
        </form>
      ) : (
        <>
          {entries.length === 0 && <p className="text-quiet">Nothing in this text can be read as a reference.</p>}
          {data.isCut && (
            <p className="mb-3 text-[13px] text-aside">
              Only the first {count(entries.length)} are taken at once; paste the others separately.
            </p>
          )}
          {groups.map((group) => {
            const its = entries.filter((e) => e.reference.verdict === group.verdict);
            if (its.length === 0) return null;
            return (
              <section key={group.verdict} aria-label={group.title} className="mb-5">
                <h3 className="mb-1 flex items-baseline gap-2 border-b border-line pb-1 text-[13px] font-semibold">
                  <span className="whitespace-nowrap">{group.title}</span>{" "}
                  <span className="tabular-nums">{count(its.length)}</span>
                  <span className="font-normal text-quiet">{group.hint}</span>
                  {group.verdict === "NotHere" && (
                    <Button
                      kind="bare"
                      className="ml-auto !h-6"
                      disabled={!mayAdd || addAll.isPending || readPrinted.isPending}
                      onClick={addThem}
                    >
                      {addAll.isPending
                        ? "Adding …"
                        : its.length === 1
                          ? "Add it as an entry"
                          : `Add all ${count(its.length)} as entries`}
                    </Button>
                  )}
                  {group.verdict === "NotHere" && (
                    <Button
                      kind="bare"
                      className="!h-6"
                      onClick={() => {
                        void navigator.clipboard.writeText(missing.join("\n")).then(() => say("Copied."));
                      }}
                    >
                      Copy them
                    </Button>
                  )}
                </h3>
                <ul>
                  {its.map((e) => (
                    <PastedEntry
                      key={e.i}
                      reference={e.reference}
                      chosen={e.work}
                      onChoose={(work) => setChosen(new Map(chosen).set(e.i, work))}
                      onAdd={mayAdd && group.verdict !== "Sure" ? () => addOne(e.i, e.reference) : null}
                    />
                  ))}
                </ul>
                {group.verdict === "NotHere" && (addAll.error ?? readPrinted.error) && (
                  <Fault error={addAll.error ?? readPrinted.error} />
                )}
                {group.verdict === "NotHere" && data.notLookedFor > 0 && (
                  <p className="mt-1 text-[12.5px] text-quiet">
                    {count(data.notLookedFor)} of them were only compared by identifier, title, author and year, because
                    the list is long.
                  </p>
                )}
              </section>
            );
          })}
          <div className="sticky bottom-[-20px] -mx-5 -mb-5 flex flex-wrap items-center gap-3 border-t border-line bg-paper px-5 py-3">
            <Button kind="primary" disabled={ids.length === 0 || take.isPending} onClick={show}>
              {ids.length === 0
                ? "No work is ticked yet"
                : ids.length === 1
                  ? "Show this work"
                  : `Show these ${works(ids.length)}`}
            </Button>
            <Button onClick={again}>Change the text</Button>
            <span className="text-[12.5px] text-quiet max-sm:hidden">Starts a new path with exactly these works.</span>
          </div>
        </>
      )}
      {adding && (
        <NewEntrySheet
          reviewId={place.reviewId}
          start={adding.start}
          close={() => setAdding(null)}
          onAdded={(workId, title) => isAdded(adding.i, workId, title)}
        />
      )}
    </Sheet>
  );
}
