import { useState, type ReactNode } from "react";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Field } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";
import { TextButton } from "../../ui/TextButton";
import { count, works } from "../../ui/numbers";
import { useCitedNames, useCitersCount, useShowCiters, type Variants } from "./useCiters";

/** Whom a name stands for, ticked or not; what cites any of the ticked ones becomes a set. */
export function CitersSheet({
  reviewId,
  start,
  ticked,
  close,
}: {
  reviewId: number;
  /** The name to begin with. */
  start: string;
  /** What was ticked before; null to begin with all that fit beyond doubt. */
  ticked: Variants | null;
  close: () => void;
}) {
  const [typed, setTyped] = useState(start);
  const [name, setName] = useState(start.trim());
  // What was flipped by hand, by "person Berg, Mei" and "print Berg, M.".
  const [flipped, setFlipped] = useState<ReadonlySet<string>>(new Set());
  const found = useCitedNames(reviewId, name);
  const show = useShowCiters(reviewId);
  const { data } = found;
  const before = ticked !== null && ticked.name === name ? ticked : null;
  const isOn = (kind: "person" | "print", label: string, isDoubtful: boolean) => {
    const usual = before ? (kind === "person" ? before.persons : before.printed).includes(label) : !isDoubtful;
    return usual !== flipped.has(`${kind} ${label}`);
  };
  const flip = (key: string) => {
    const next = new Set(flipped);
    if (!next.delete(key)) next.add(key);
    setFlipped(next);
  };
  const persons = (data?.persons ?? []).map((p) => ({ ...p, on: isOn("person", p.label, p.isDoubtful) }));
  const printed = (data?.printed ?? []).map((p) => ({ ...p, on: isOn("print", p.name, p.isDoubtful) }));
  const chosen: Variants = {
    name,
    persons: persons.filter((p) => p.on).map((p) => p.label),
    printed: printed.filter((p) => p.on).map((p) => p.name),
  };
  const some = chosen.persons.length + chosen.printed.length > 0;
  const counted = useCitersCount(reviewId, chosen);
  // The last count stays, greyed, until the next one is there.
  const late = counted.isPlaceholderData ? "opacity-50" : "";
  const setAll = (kind: "person" | "print", labels: { label: string; on: boolean }[], on: boolean) => {
    const next = new Set(flipped);
    for (const l of labels.filter((l) => l.on !== on)) {
      const key = `${kind} ${l.label}`;
      if (!next.delete(key)) next.add(key);
    }
    setFlipped(next);
  };
  return (
    <Sheet
      open
      onOpenChange={close}
      title="Who cites a name"
      hint="Works that cite something by a person, under each name the databases and the reference lists have for them."
      width={760}
    >
      <form
        className="mb-4 flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          setName(typed.trim());
          setFlipped(new Set());
        }}
      >
        <Field
          label="Name, with initials or *"
          placeholder="Berg, M*"
          value={typed}
          autoFocus
          onChange={(e) => setTyped(e.target.value)}
          className="flex-1"
        />
        <Button type="submit" className="h-9" disabled={typed.trim() === ""}>
          Find the name
        </Button>
      </form>
      {found.error && <Fault error={found.error} />}
      {found.isFetching && !data && <p className="text-quiet">Looking …</p>}
      {data && (
        <>
          {data.personCount + data.printedCount === 0 && (
            <p className="text-quiet">
              No person in these databases has a name like this, and no reference contains it.
            </p>
          )}
          <Group
            title="People"
            hint="works of theirs · works that cite them"
            total={data.personCount}
            shown={persons.length}
            set={(on) => setAll("person", persons, on)}
          >
            {persons.map((p) => (
              <Variant
                key={p.label}
                label={p.label}
                on={p.on}
                flip={() => flip(`person ${p.label}`)}
                doubt={
                  p.isDoubtful
                    ? "less specific than what you typed"
                    : p.perhaps.length > 0
                      ? `may be the same as ${p.perhaps.join("; ")}`
                      : null
                }
                counts={`${count(p.works)} · ${count(p.citedBy)}`}
              />
            ))}
          </Group>
          <Group
            title="In references that match no work"
            hint="works with such a reference"
            total={data.printedCount}
            shown={printed.length}
            set={(on) =>
              setAll(
                "print",
                printed.map((p) => ({ label: p.name, on: p.on })),
                on,
              )
            }
          >
            {printed.map((p) => (
              <Variant
                key={p.name}
                label={p.name}
                on={p.on}
                flip={() => flip(`print ${p.name}`)}
                doubt={p.isDoubtful ? "less specific than what you typed" : null}
                counts={count(p.works)}
              />
            ))}
          </Group>
          {data.personCount + data.printedCount > 0 && (
            <div className="sticky bottom-[-20px] -mx-5 -mb-5 flex flex-wrap items-center gap-3 border-t border-line bg-paper px-5 py-3">
              <Button
                kind="primary"
                disabled={!some || show.isPending || counted.data?.with === 0}
                onClick={() => show.mutate(chosen)}
              >
                {!some ? (
                  "No variant is ticked yet"
                ) : !counted.data ? (
                  "Counting …"
                ) : (
                  <span className={late}>Show the {works(counted.data.with)} that cite them</span>
                )}
              </Button>
              {some && counted.data && (
                <span className={`text-[12.5px] text-quiet ${late}`}>
                  {count(counted.data.only)} of them by the same people
                </span>
              )}
            </div>
          )}
        </>
      )}
    </Sheet>
  );
}

function Group({
  title,
  hint,
  total,
  shown,
  set,
  children,
}: {
  title: string;
  hint: string;
  total: number;
  shown: number;
  set: (on: boolean) => void;
  children: ReactNode;
}) {
  if (total === 0) return null;
  return (
    <section aria-label={title} className="mb-5">
      <h3 className="mb-1 flex items-baseline gap-2 border-b border-line pb-1 text-[13px] font-semibold">
        {title} <span className="tabular-nums">{count(total)}</span>
        <TextButton className="text-[12px] font-normal text-quiet" onClick={() => set(true)}>
          all
        </TextButton>
        <TextButton className="text-[12px] font-normal text-quiet" onClick={() => set(false)}>
          none
        </TextButton>
        <span className="ml-auto font-normal text-quiet">{hint}</span>
      </h3>
      <ul>{children}</ul>
      {shown < total && (
        <p className="mt-1 text-[12.5px] text-quiet">
          Only the first {count(shown)} can be ticked; type more of the name to see others.
        </p>
      )}
    </section>
  );
}

function Variant({
  label,
  on,
  flip,
  doubt,
  counts,
}: {
  label: string;
  on: boolean;
  flip: () => void;
  doubt: string | null;
  counts: string;
}) {
  return (
    <li className="border-b border-soft last:border-0">
      <label className="grid cursor-pointer grid-cols-[18px_minmax(0,1fr)_auto] items-baseline gap-1.5 py-1 text-[13.5px]">
        <input type="checkbox" checked={on} onChange={flip} />
        <span>
          {label}
          {doubt && <span className="block text-[12px] text-quiet">{doubt}</span>}
        </span>
        <span className="text-[12.5px] text-quiet tabular-nums">{counts}</span>
      </label>
    </li>
  );
}
