import { Accordion } from "radix-ui";
import type { Dto } from "../../api/client";
import { useEvidence } from "../../set/useTrail";
import { Fault } from "../../ui/Fault";
import { Press } from "../../ui/Press";
import { StageMark } from "../../ui/StageMark";
import { count } from "../../ui/numbers";
import { SeedMark } from "./TieMarks";
import { whyNeighbour } from "../../set/neighbourWords";

interface Props {
  reviewId: number;
  stepId: number;
  workId: number;
  /** How many seeds there are. */
  seeds: number;
  onOpen: (id: number) => void;
  /** Searches for a word or a person. */
  onSearch: (expression: string) => void;
}

/** What a work has in common with the seeds, reason by reason: each opens what is shared itself. */
export function Evidence({ reviewId, stepId, workId, seeds, onOpen, onSearch }: Props) {
  const found = useEvidence(reviewId, stepId, workId);
  if (found.error) return <Fault error={found.error} />;
  if (!found.data) return <div className="shape mb-3 h-8 w-full" aria-busy="true" />;
  const { references, together, terms, people } = found.data;
  const said = (one: Partial<Dto<"InCommonDto">>) =>
    whyNeighbour({ references: null, together: null, terms: null, people: null, ...one });
  if (references.total + together.total + terms.length + people.length === 0) return null;
  return (
    <section aria-label="In common with the seeds" className="mb-3 rounded-md border border-line bg-raised px-3 py-1.5">
      <h3 className="text-[12px] text-quiet">In common with the {seeds === 1 ? "seed" : "seeds"}</h3>
      <Accordion.Root type="multiple" className="text-[13px]">
        {references.total > 0 && (
          <Part value="references" title={said({ references: references.total })}>
            <Works of={references} seeds={seeds} onOpen={onOpen} />
          </Part>
        )}
        {together.total > 0 && (
          <Part value="together" title={said({ together: together.total })}>
            <Works of={together} seeds={seeds} onOpen={onOpen} />
          </Part>
        )}
        {terms.length > 0 && (
          <Part value="terms" title={said({ terms: terms.length })}>
            <ul className="flex flex-wrap gap-x-3 gap-y-0.5 pb-1.5">
              {terms.map((t) => (
                <li key={t.term}>
                  <Press
                    className="min-h-[24px] hover:underline"
                    onClick={() => onSearch(t.expression)}
                    title="Search for it"
                  >
                    {t.term} <span className="text-[12px] text-quiet">{count(t.works)}</span>
                  </Press>
                </li>
              ))}
            </ul>
          </Part>
        )}
        {people.length > 0 && (
          <Part value="people" title={said({ people: people.length })}>
            <ul className="pb-1.5">
              {people.map((p) => (
                <li key={p.person} className="flex items-center gap-2">
                  <span>{p.person}</span>
                  <Marks of={p.seeds} seeds={seeds} />
                </li>
              ))}
            </ul>
          </Part>
        )}
      </Accordion.Root>
    </section>
  );
}

function Part({ value, title, children }: { value: string; title: string; children: React.ReactNode }) {
  return (
    <Accordion.Item value={value}>
      <Accordion.Header asChild>
        <h4>
          <Accordion.Trigger className="group flex min-h-[24px] w-full items-center gap-1.5 text-left font-semibold">
            <span aria-hidden="true" className="text-quiet group-data-[state=open]:rotate-90">
              ›
            </span>
            {title}
          </Accordion.Trigger>
        </h4>
      </Accordion.Header>
      <Accordion.Content className="pl-3.5">{children}</Accordion.Content>
    </Accordion.Item>
  );
}

function Works({ of, seeds, onOpen }: { of: Dto<"SharedWorksDto">; seeds: number; onOpen: (id: number) => void }) {
  return (
    <ul className="max-h-[220px] overflow-y-auto pb-1.5">
      {of.works.map((w) => (
        <li key={w.workId} className="py-0.5">
          <Press className="min-h-[24px] text-left hover:underline" onClick={() => onOpen(w.workId)}>
            <span className="text-[12.5px] text-quiet">
              {w.people || "No people named"} {w.year ?? "n.d."}{" "}
              {w.stage !== "Found" && (
                <span className="inline-block align-[-1px]">
                  <StageMark stage={w.stage} />
                </span>
              )}
            </span>{" "}
            <span className="font-serif">{w.title || "without a title"}</span>
          </Press>{" "}
          <Marks of={w.seeds} seeds={seeds} />
        </li>
      ))}
      {of.works.length < of.total && (
        <li className="text-[12.5px] text-quiet">and {count(of.total - of.works.length)} more</li>
      )}
    </ul>
  );
}

function Marks({ of, seeds }: { of: readonly number[]; seeds: number }) {
  if (seeds === 1) return null;
  return (
    <span className="inline-flex gap-[2px] align-[-2px]">
      {of.map((n) => (
        <SeedMark key={n} n={n} />
      ))}
    </span>
  );
}
