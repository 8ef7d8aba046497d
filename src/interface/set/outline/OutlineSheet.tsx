import { useState, type ReactNode } from "react";
import type { Dto } from "../../api/client";
import { Fault } from "../../ui/Fault";
import { Select } from "../../ui/Input";
import { Press } from "../../ui/Press";
import { Sheet } from "../../ui/Sheet";
import { StageMark } from "../../ui/StageMark";
import { TextButton } from "../../ui/TextButton";
import { count, percent, works } from "../../ui/numbers";
import { useOpenSet } from "../useOpenSet";
import type { Place } from "../useSet";
import { useBridges, useOutline } from "./useOutline";

/** What shows in the citations of a list: its main line, what woke late, what bridges two tags, what is retracted. */
export function OutlineSheet({ place, close }: { place: Place; close: () => void }) {
  const { data, error } = useOutline(place.reviewId, place.stepId);
  const open = useOpenSet(place);
  const read = (id: number) => {
    close();
    place.change({ work: String(id) });
  };
  const show = (ids: readonly number[], said: string) => {
    close();
    open(place.stepId, [{ act: { kind: "Among", works: [...ids], said } }]);
  };
  return (
    <Sheet open onOpenChange={close} width={820} title="What its citations show">
      {error && <Fault error={error} />}
      {!data && !error && <p className="text-quiet">Counting chains of citations …</p>}
      {data && (
        <>
          <Part
            title="Main line"
            hint={
              data.line.length === 0
                ? "No work of this list cites another of it."
                : `The chain that most chains of citations run through, of ${works(data.tied)} that cite each other.` +
                  (data.leftOut > 0 ? ` ${count(data.leftOut)} citations that run in a circle are left out.` : "")
            }
            act={
              data.line.length > 0
                ? () =>
                    show(
                      data.line.map((l) => l.work.id),
                      "main line",
                    )
                : null
            }
          >
            {data.line.map((l) => (
              <Row key={l.work.id} work={l.work} read={read}>
                {l.share > 0 ? `${percent(l.share)} of all chains come from the work above` : null}
              </Row>
            ))}
          </Part>
          <Part
            title="Sleeping papers"
            hint={
              data.sleeping.length === 0
                ? "No work in this list was rarely cited for years and then often."
                : "Rarely cited for years, then often. The beauty coefficient measures how strongly, from the citations in these databases."
            }
            act={
              data.sleeping.length > 0
                ? () =>
                    show(
                      data.sleeping.map((s) => s.work.id),
                      "sleeping papers",
                    )
                : null
            }
          >
            {data.sleeping.map((s) => (
              <Row key={s.work.id} work={s.work} read={read}>
                beauty <b className="font-semibold text-ink">{s.beauty}</b> · awoke {s.awakened} · most in {s.peak} (
                {count(s.atPeak)})
              </Row>
            ))}
          </Part>
          <Part
            title="Retracted, still cited"
            hint={
              data.retracted.length === 0
                ? "No work of this list cites one that a notice here retracts."
                : "Works that a retraction notice names, cited in this list."
            }
            act={null}
          >
            {data.retracted.map((r) => (
              <Row key={r.work.id} work={r.work} read={read}>
                retracted {r.year ?? "in an unknown year"} · cited by {works(r.cited)} here
                {r.since > 0 && <>, {count(r.since)} since</>}
                {r.kept.length > 0 && (
                  <span className="block text-ink">
                    Kept works that cite it:{" "}
                    {r.kept.map((k, i) => (
                      <span key={k.id}>
                        {i > 0 && "; "}
                        <TextButton onClick={() => read(k.id)}>{k.title.text}</TextButton>
                      </span>
                    ))}
                  </span>
                )}
              </Row>
            ))}
          </Part>
          {data.tags.length > 1 && <Bridges place={place} tags={data.tags} read={read} show={show} />}
        </>
      )}
    </Sheet>
  );
}

function Bridges({
  place,
  tags,
  read,
  show,
}: {
  place: Place;
  tags: readonly string[];
  read: (id: number) => void;
  show: (ids: readonly number[], said: string) => void;
}) {
  const [first, setFirst] = useState(tags[0] ?? "");
  const [second, setSecond] = useState(tags[1] ?? "");
  const { data } = useBridges(place.reviewId, place.stepId, first, second);
  const choice = (label: string, value: string, set: (tag: string) => void) => (
    <Select aria-label={label} className="h-7 max-w-[200px]" value={value} onChange={(e) => set(e.target.value)}>
      {tags.map((t) => (
        <option key={t}>{t}</option>
      ))}
    </Select>
  );
  return (
    <Part
      title="Between two tags"
      hint={
        first === second
          ? "Choose two different tags."
          : data
            ? `${works(data.total)} cite or are cited by works of both` +
              (data.total > data.works.length ? `; the strongest ${count(data.works.length)} are shown.` : ".")
            : "Counting …"
      }
      act={
        data && data.works.length > 0
          ? () =>
              show(
                data.works.map((b) => b.work.id),
                `between ${first} and ${second}`,
              )
          : null
      }
      choices={
        <span className="flex flex-wrap items-center gap-2 text-[12.5px]">
          {choice("First tag", first, setFirst)} and {choice("Second tag", second, setSecond)}
        </span>
      }
    >
      {first !== second &&
        data?.works.map((b) => (
          <Row key={b.work.id} work={b.work} read={read}>
            tied to {count(b.first)} of {first}, {count(b.second)} of {second}
          </Row>
        ))}
    </Part>
  );
}

function Part({
  title,
  hint,
  act,
  choices,
  children,
}: {
  title: string;
  hint: string;
  /** Makes the works a step; null where there are none. */
  act: (() => void) | null;
  choices?: ReactNode;
  children: ReactNode;
}) {
  return (
    <section aria-label={title} className="mb-5">
      <h3 className="flex items-baseline gap-3 border-b border-line pb-1 text-[14px] font-semibold">
        {title}
        {choices}
        {act && (
          <TextButton className="ml-auto text-[12.5px] font-normal" onClick={act}>
            Show these as a list
          </TextButton>
        )}
      </h3>
      <p className="py-1 text-[12.5px] text-quiet">{hint}</p>
      <ol className="divide-y divide-soft">{children}</ol>
    </section>
  );
}

function Row({ work, read, children }: { work: Dto<"WorkRowDto">; read: (id: number) => void; children: ReactNode }) {
  return (
    <li className="grid grid-cols-[44px_minmax(0,1fr)] gap-2 py-1.5 text-[12.5px]">
      <span className="text-quiet tabular-nums">
        {work.year ?? "n.d."} {work.stage !== "Found" && <StageMark stage={work.stage} />}
      </span>
      <span className="min-w-0">
        <Press
          className="text-left font-serif text-[14.5px] leading-snug hover:underline"
          onClick={() => read(work.id)}
        >
          {work.title.text || "without a title"}
        </Press>
        <span className="block text-quiet">
          {work.people}
          {work.people && children && " · "}
          {children}
        </span>
      </span>
    </li>
  );
}
