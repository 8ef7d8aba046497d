import { useDeferredValue, useState } from "react";
import { ArrowDown, ArrowUp } from "lucide-react";
import type { Dto } from "../../api/client";
import { useMe } from "../../review/useMe";
import { useChoose, useDirectory, useLibraries, useUse } from "../../set/library/useLibraries";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Field } from "../../ui/Field";
import { count } from "../../ui/numbers";
import { Press } from "../../ui/Press";
import { Sheet } from "../../ui/Sheet";
import { TextButton } from "../../ui/TextButton";
import { AddLibrary } from "./AddLibrary";
import { KeptLibraries } from "./KeptLibraries";
import { holdingsWords } from "./holdingsWords";

type Library = Dto<"LibraryDto">;

/** Which libraries a person uses, in which order, and where others are found. */
export function LibrariesSheet({ close }: { close: () => void }) {
  const libraries = useLibraries();
  const isCurator = useMe().data?.isCurator ?? false;
  const [adding, setAdding] = useState(false);
  const all = libraries.data?.libraries ?? [];
  return (
    <Sheet
      open
      onOpenChange={close}
      title="Your libraries"
      hint="When no free copy is found, their holdings are used, in this order. Other members of your reviews use their own."
      width={760}
    >
      {libraries.error && <Fault error={libraries.error} again={() => void libraries.refetch()} />}
      <Mine mine={all.filter((l) => l.isMine)} />
      {libraries.data?.hasDirectory && <Directory />}
      <Others others={all.filter((l) => !l.isMine && l.identifier === "")} mine={all.filter((l) => l.isMine)} />
      {isCurator && (
        <section className="mt-5 border-t border-line pt-3">
          <KeptLibraries libraries={all} />
          {adding ? (
            <AddLibrary close={() => setAdding(false)} />
          ) : (
            <TextButton className="text-[13px]" onClick={() => setAdding(true)}>
              Add a library by a file and its addresses
            </TextButton>
          )}
        </section>
      )}
    </Sheet>
  );
}

function Mine({ mine }: { mine: readonly Library[] }) {
  const use = useUse();
  const ids = mine.map((l) => l.id);
  const swap = (i: number) => {
    const next = [...ids];
    [next[i - 1], next[i]] = [next[i] ?? 0, next[i - 1] ?? 0];
    use.mutate(next);
  };
  if (mine.length === 0) return null;
  return (
    <ol className="mb-4 divide-y divide-line border-y border-line" aria-label="Libraries you use">
      {mine.map((l, i) => (
        <li key={l.id} className="flex items-center gap-3 py-2 text-[13px]">
          <span className="w-4 text-right text-quiet">{i + 1}</span>
          <Line of={l} />
          <Step label={`Ask ${l.name} earlier`} off={i === 0} act={() => swap(i)} icon={<ArrowUp size={14} />} />
          <Step
            label={`Ask ${l.name} later`}
            off={i === mine.length - 1}
            act={() => swap(i + 1)}
            icon={<ArrowDown size={14} />}
          />
          <TextButton className="text-quiet" onClick={() => use.mutate(ids.filter((id) => id !== l.id))}>
            Do not use
          </TextButton>
        </li>
      ))}
    </ol>
  );
}

function Step({ label, off, act, icon }: { label: string; off: boolean; act: () => void; icon: React.ReactNode }) {
  return (
    <Press
      aria-label={label}
      title={label}
      disabled={off}
      onClick={act}
      className="grid h-7 w-7 place-items-center rounded hover:bg-soft disabled:opacity-30"
    >
      {icon}
    </Press>
  );
}

const town = (l: { town: string; country: string }) => [l.town, l.country].filter(Boolean).join(", ");

/** A library by name and town, with how its holdings stand. */
function Line({ of: l }: { of: Library }) {
  return (
    <p className="min-w-0 flex-1">
      <b className="font-semibold">{l.name}</b>
      <span className="text-quiet">
        {town(l) && ` · ${town(l)}`} · {holdingsWords(l)}
      </span>
    </p>
  );
}

function Directory() {
  const [find, setFind] = useState("");
  const wanted = useDeferredValue(find);
  const found = useDirectory(wanted);
  const choose = useChoose();
  return (
    <section aria-label="Find your library">
      <Field
        label="Find your library by name, place or identifier"
        type="search"
        maxLength={200}
        value={find}
        onChange={(e) => setFind(e.target.value)}
      />
      {found.error && <Fault error={found.error} again={() => void found.refetch()} />}
      {wanted.trim() !== "" && found.data && (
        <>
          <p className="mt-2 text-[12.5px] text-quiet" role="status">
            {found.data.total === 0
              ? "The directory lists no such library. Try its town, or fewer words."
              : found.data.total > found.data.libraries.length
                ? `The first ${count(found.data.libraries.length)} of ${count(found.data.total)}; type more to see fewer.`
                : `${count(found.data.total)} found.`}
          </p>
          <ul className="max-h-[38vh] divide-y divide-line overflow-y-auto">
            {found.data.libraries.map((l) => (
              <li key={l.identifier} className="flex items-center gap-3 py-2 text-[13px]" data-listed={l.identifier}>
                <p className="min-w-0 flex-1">
                  <b className="font-semibold">{l.name}</b>
                  <span className="block text-quiet">
                    {town(l) || "place not said"} · {l.identifier}
                  </span>
                </p>
                {l.isMine ? (
                  <span className="text-quiet">you use it</span>
                ) : (
                  <Button
                    aria-label={`Use this one: ${l.name}, ${l.town}`}
                    disabled={choose.isPending}
                    onClick={() => choose.mutate(l.identifier)}
                  >
                    Use this one
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

/** Libraries that a curator has added by hand, which no directory lists. */
function Others({ others, mine }: { others: readonly Library[]; mine: readonly Library[] }) {
  const use = useUse();
  if (others.length === 0) return null;
  return (
    <section aria-label="Added by curators" className="mt-4">
      <h3 className="text-[12.5px] font-semibold">Added by curators</h3>
      <ul className="divide-y divide-line">
        {others.map((l) => (
          <li key={l.id} className="flex items-center gap-3 py-2 text-[13px]">
            <Line of={l} />
            <Button
              aria-label={`Use this one: ${l.label}`}
              onClick={() => use.mutate([...mine.map((m) => m.id), l.id])}
            >
              Use this one
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
