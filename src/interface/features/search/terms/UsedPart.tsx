import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";
import type { Dto } from "../../../api/client";
import type { StepAct } from "../../../set/useSet";
import { MenuFrame, MenuItem } from "../../../ui/Menu";
import { count, works } from "../../../ui/numbers";
import { Press } from "../../../ui/Press";
import { PartWaits } from "./PartWaits";
import { DecadeBars, decadeWidth } from "./DecadeBars";
import type { TermsContext } from "./context";
import { setWordsTable, useSetWords, type SetTerm, type SetWords } from "./useSetWords";

/** What a step asks for already, which a further narrowing must not lose. */
export type Asked = Pick<Dto<"SearchStateDto">, "inside" | "narrowings">;

/** What words the set in view uses: every row narrows to its works, or goes to the board. */
export function UsedPart({
  context,
  asked,
  take,
}: {
  context: TermsContext;
  asked: Asked | null;
  take: (act: StepAct) => void;
}) {
  const { reviewId, stepId } = context.line;
  const words = useSetWords(reviewId, stepId);
  const data = words.data;
  if (!data || asked === null) return <PartWaits error={words.error} />;
  if (data.total === 0) return <p className="px-[18px] py-4 text-[13px] text-quiet">There are no works in view.</p>;
  const inside = (expressions: readonly string[]) =>
    take({ kind: "Inside", words: [...asked.inside, ...expressions.filter((e) => !asked.inside.includes(e))] });
  const board = (expressions: readonly string[]) => <ToBoard context={context} expressions={expressions} />;
  const term = (t: SetTerm) => (
    <Row
      key={t.text}
      name={t.text}
      onNarrow={() => inside([t.expression])}
      title={`Only works with ${t.expression}`}
      bars={<DecadeBars by={t.decades} decades={data.decades} />}
      aside={t.trend === "Even" ? "" : t.trend === "Rising" ? "rising" : "falling"}
      works={t.works}
      board={board([t.expression])}
    />
  );
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-x-3 px-[18px] py-2 text-[12.5px] text-quiet">
        <span className="grow">
          {works(data.total)} in view{data.undated > 0 && `, ${count(data.undated)} without a year`}
        </span>
        <a className="flex min-h-6 items-center underline" href={setWordsTable(reviewId, stepId)} download>
          CSV
        </a>
      </p>
      <Section
        title="Terms by decade"
        head={<Decades decades={data.decades} />}
        none="These works share no terms other than those of the search."
      >
        {data.terms.map(term)}
      </Section>
      <Section title="Terms that occur together" none="No two terms occur together more often than expected by chance.">
        {data.pairs.map((p) => (
          <Row
            key={`${p.first} ${p.second}`}
            name={`${p.first} + ${p.second}`}
            onNarrow={() => inside(p.expressions)}
            title={`Only works with both: ${p.expressions.join(" AND ")}`}
            works={p.works}
            board={board(p.expressions)}
          />
        ))}
      </Section>
      <Section title="Methods" none="None of the terms these works share is a method.">
        {data.methods.map(term)}
      </Section>
      <Names facet="Keyword" title="Keywords" names={data.keywords} asked={asked} take={take} />
      <Names facet="Country" title="Countries they are about" names={data.countries} asked={asked} take={take} />
    </>
  );
}

/**
 * Values of a field. Where the step asks for some of them already, one of those takes their place; any other is required
 * beside them.
 */
function Names({
  facet,
  title,
  names,
  asked,
  take,
}: {
  facet: "Keyword" | "Country";
  title: string;
  names: SetWords["keywords"];
  asked: Asked;
  take: (act: StepAct) => void;
}) {
  const now = asked.narrowings.find((n) => n.facet === facet);
  const [values = [], each = []] = [now?.values, now?.each].map((of) => of?.map((v) => v.toLowerCase()));
  const narrow = (name: string) => {
    const its = name.toLowerCase();
    if (each.includes(its) || (values.length === 1 && values.includes(its))) return null;
    const beside = values.length > 0 && !values.includes(its);
    return () =>
      take({
        kind: "Narrow",
        facet,
        values: beside ? (now?.values ?? []) : [name],
        excluded: now?.excluded ?? [],
        each: beside ? [...(now?.each ?? []), name] : (now?.each ?? []),
      });
  };
  const hint = (name: string) => (narrow(name) ? `Only ${name}` : "All works in view have this already");
  return (
    <Section title={title} none="The records of these works give none.">
      {names.map((n) => (
        <Row key={n.name} name={n.name} onNarrow={narrow(n.name)} title={hint(n.name)} works={n.works} />
      ))}
    </Section>
  );
}

function Section({
  title,
  head,
  none,
  children,
}: {
  title: string;
  head?: ReactNode;
  none: string;
  children: ReactNode[];
}) {
  return (
    <section aria-label={title} className="pb-2">
      <h3
        className={`flex items-end justify-between gap-2 whitespace-nowrap border-y border-line bg-paper px-[18px] py-1
          text-[12px] font-semibold`}
      >
        {title}
        {children.length > 0 && head}
      </h3>
      {children.length > 0 ? <ul>{children}</ul> : <p className="px-[18px] py-1.5 text-[12.5px] text-quiet">{none}</p>}
    </section>
  );
}

/** The first and the last decade over their bars. */
function Decades({ decades }: { decades: SetWords["decades"] }) {
  return (
    <span
      className="mr-[128px] flex shrink-0 justify-between text-[11.5px] font-normal text-faint"
      style={{ width: Math.max(76, decades.length * decadeWidth) }}
    >
      <span>{decades[0]?.from}s</span>
      {decades.length > 1 && <span>{decades.at(-1)?.from}s</span>}
    </span>
  );
}

function Row({
  name,
  onNarrow,
  title,
  bars,
  aside,
  works: n,
  board,
}: {
  name: string;
  onNarrow: (() => void) | null;
  title: string;
  bars?: ReactNode;
  aside?: string;
  works: number;
  board?: ReactNode;
}) {
  return (
    <li className="flex min-h-[26px] items-center gap-2 px-[18px] hover:bg-mist">
      <Press
        onClick={onNarrow ?? undefined}
        disabled={onNarrow === null}
        title={title}
        className="min-h-6 min-w-0 grow truncate text-left font-serif text-[14px] enabled:hover:underline"
      >
        {name}
      </Press>
      {bars}
      {aside !== undefined && <span className="w-[44px] shrink-0 text-[11.5px] text-quiet">{aside}</span>}
      <b className="w-[38px] shrink-0 text-right text-[13px]">{count(n)}</b>
      {board !== undefined && <span className="flex w-[30px] shrink-0 justify-end">{board}</span>}
    </li>
  );
}

/** Takes terms to a concept of the board; several become one concept each, or all go to the one that is chosen. */
function ToBoard({ context, expressions }: { context: TermsContext; expressions: readonly string[] }) {
  const to = (card: number) =>
    context.take(
      expressions.map((expression, i) => ({ expression, card: card < context.cards.length ? card : card + i })),
    );
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        disabled={context.isTaking}
        className="min-h-6 text-[12px] text-quiet underline decoration-line underline-offset-2 hover:decoration-ink"
      >
        take
      </DropdownMenu.Trigger>
      <MenuFrame width={150} align="end">
        {context.cards.map((c, i) =>
          c.kind === "Concept" ? <MenuItem key={i} onSelect={() => to(i)}>{`to ${c.letter ?? ""}`}</MenuItem> : null,
        )}
        <MenuItem onSelect={() => to(context.cards.length)}>
          {expressions.length > 1 ? "new concepts" : "new concept"}
        </MenuItem>
      </MenuFrame>
    </DropdownMenu.Root>
  );
}
