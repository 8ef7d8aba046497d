import { useState } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { FileInput } from "../../ui/Input";
import { Sheet } from "../../ui/Sheet";
import { fileText } from "../../ui/fileText";
import { count } from "../../ui/numbers";
import { useAddDatabase, useLook } from "../../review/useDatabases";

const mostAddresses = 200;

/** One line of the file, and what its address answered. */
interface Line {
  address: string;
  found: Dto<"LookDto"> | null;
  fault: string | null;
  state: "asking" | "answered" | "added";
  chosen: boolean;
}

/** The addresses of a file: one a line; what follows the first blank, tab, comma or semicolon, and lines with #, are notes. */
function addressesIn(text: string): string[] {
  const lines = text
    .replace(/^\uFEFF/, "")
    .split(/\r\n|\r|\n/)
    .map((l) => l.trim())
    .filter((l) => l !== "" && !l.startsWith("#"))
    .map((l) => (l.split(/[\s,;]/)[0] ?? "").replace(/^"|"$/g, ""));
  return [...new Set(lines.filter((l) => l !== ""))];
}

/** Adds many databases at once: asks every address of a file, shows what each answers, adds those that are ticked. */
export function AddFromFile({ close }: { close: () => void }) {
  const [lines, setLines] = useState<readonly Line[]>([]);
  const [note, setNote] = useState("");
  const look = useLook();
  const add = useAddDatabase();
  const put = (address: string, next: Partial<Line>) =>
    setLines((old) => old.map((l) => (l.address === address ? { ...l, ...next } : l)));
  const ask = async (addresses: string[]) => {
    for (const address of addresses) {
      try {
        const found = await look.mutateAsync({ address, set: null });
        put(address, { found, state: "answered", chosen: found.bestFormat !== null });
      } catch (e) {
        put(address, { fault: e instanceof Error ? e.message : "It did not answer.", state: "answered" });
      }
    }
  };
  const read = async (file: File) => {
    const all = addressesIn(await fileText(file));
    const addresses = all.slice(0, mostAddresses);
    setNote(
      all.length === 0
        ? `${file.name} contains no address.`
        : all.length > mostAddresses
          ? `The first ${count(mostAddresses)} of ${count(all.length)} addresses are checked.`
          : "",
    );
    setLines(addresses.map((address) => ({ address, found: null, fault: null, state: "asking", chosen: false })));
    await ask(addresses);
  };
  const ready = lines.filter((l) => l.chosen && l.state === "answered" && l.found?.bestFormat);
  const addAll = async () => {
    for (const line of ready) {
      try {
        await add.mutateAsync({
          address: line.address,
          format: line.found?.bestFormat ?? null,
          set: null,
          trusted: false,
        });
        put(line.address, { state: "added" });
      } catch (e) {
        put(line.address, { fault: e instanceof Error ? e.message : "It could not be added.", chosen: false });
      }
    }
  };
  return (
    <Sheet
      open
      onOpenChange={close}
      title="Add databases from a file"
      hint="A text file with one OAI-PMH address in each line. Zendle checks what each one offers; nothing is copied until you add it."
      width={860}
    >
      <FileInput
        accept=".txt,.csv,.tsv,text/plain,text/csv"
        aria-label="File of addresses"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) void read(file);
        }}
      />
      {note && <p className="mt-2 text-[12.5px] text-aside">{note}</p>}
      {lines.length > 0 && (
        <ul className="mt-4 divide-y divide-line border-y border-line">
          {lines.map((l) => (
            <li key={l.address} className="grid grid-cols-[20px_minmax(0,1fr)_auto] items-baseline gap-3 py-2">
              <input
                type="checkbox"
                aria-label={`Add ${l.address}`}
                checked={l.chosen}
                disabled={l.found?.bestFormat == null || l.state === "added"}
                onChange={(e) => put(l.address, { chosen: e.target.checked })}
                className="accent-[var(--pine)]"
              />
              <div className="min-w-0">
                <p className="truncate font-semibold">{l.found?.name ?? l.address}</p>
                <p className={`text-[12.5px] ${l.fault ? "text-aside" : "text-quiet"}`}>
                  {l.fault ??
                    (l.found === null
                      ? "asking …"
                      : l.found.bestFormat === null
                        ? "offers no format that Zendle reads"
                        : [
                            l.found.total === null ? "records not counted" : `${count(l.found.total)} records`,
                            `as ${l.found.bestFormat}`,
                          ].join(", "))}
                </p>
              </div>
              <span className="text-[12.5px] text-quiet">{l.state === "added" ? "added" : ""}</span>
            </li>
          ))}
        </ul>
      )}
      <div className="mt-4 flex gap-2">
        <Button kind="primary" disabled={ready.length === 0 || add.isPending} onClick={() => void addAll()}>
          Add and harvest {count(ready.length)}
        </Button>
        <Button onClick={close}>Close</Button>
      </div>
    </Sheet>
  );
}
