import { useState } from "react";
import type { Dto } from "../../../api/client";
import { count } from "../../../ui/numbers";
import { asTerm, useSetsOfLine, type SetsOfLine } from "../../../set/useOpenSet";
import type { Place, StepAct } from "../../../set/useSet";
import { AddTerm } from "./AddTerm";
import { CardHead } from "./CardHead";
import { LedgerCard } from "./LedgerCard";
import { TermRows, columns, dragType, numberColumns } from "./TermRow";
import { useBoard, without, type BoardActs, type Card, type OffTerm } from "./useBoard";
import { TextButton } from "../../../ui/TextButton";

/**
 * The board: each concept with its terms, what each finds and what only it brings in; what must not stand; limits; the
 * ledger of databases at the right end.
 */
export function Board({
  place,
  reading,
  line,
  state,
  missed,
  late,
  take,
  onLine,
}: {
  place: Place;
  reading: Dto<"ReadingDto">;
  /** The line as it stands now; the reading may still be of an older one. */
  line: string;
  state: Dto<"SearchStateDto"> | null;
  missed: number;
  late: boolean;
  take: (act: StepAct) => void;
  onLine: (text: string) => void;
}) {
  const cards = reading.board;
  const { acts, off } = useBoard(place.reviewId, reading, line, onLine);
  const sets = useSetsOfLine(place, reading.text, state);
  const behind = { place, sets };
  const concepts = cards.flatMap((card, index) =>
    card.kind === "Concept" || card.kind === "Block" ? [{ card, index }] : [],
  );
  return (
    <section
      aria-label="Board"
      style={numberColumns(cards.flatMap((c) => c.rows))}
      className={`flex max-h-[200px] shrink-0 items-stretch gap-2 overflow-x-auto px-[18px] pt-0.5 pb-2.5 ${late ? "opacity-60" : ""}`}
    >
      {concepts.map(({ card, index }, i) => (
        <div
          key={index}
          className="flex min-w-[max(190px,calc(100px+var(--works)+var(--only)))] flex-1 items-stretch gap-1.5"
        >
          {i > 0 && <span className="self-center text-[11.5px] text-quiet">and</span>}
          <ConceptCard
            cards={cards}
            card={card}
            index={index}
            acts={acts}
            behind={behind}
            off={off.filter((o) => o.card === index)}
          />
        </div>
      ))}
      <SideCard
        cards={cards}
        acts={acts}
        behind={behind}
        off={off.filter((o) => o.card === null || cards[o.card]?.kind !== "Concept")}
      />
      {reading.ledger && (
        <LedgerCard
          reviewId={place.reviewId}
          stepId={place.stepId}
          line={reading.text}
          ledger={reading.ledger}
          state={state}
          missed={missed}
          take={take}
          sets={sets}
        />
      )}
    </section>
  );
}

/** What opens behind the numbers of a row. */
export interface Behind {
  place: Place;
  sets: SetsOfLine;
}

/** Takes a row that is dropped on it. */
function useDrop(acts: BoardActs, to: number) {
  const [over, setOver] = useState(false);
  return {
    over,
    on: {
      onDragOver: (e: React.DragEvent) => {
        if (!e.dataTransfer.types.includes(dragType)) return;
        e.preventDefault();
        setOver(true);
      },
      onDragLeave: () => setOver(false),
      onDrop: (e: React.DragEvent) => {
        setOver(false);
        const row = e.dataTransfer.getData(dragType);
        if (!row) return;
        e.preventDefault();
        const { card, term } = JSON.parse(row) as { card: number; term: number };
        if (card !== to) acts.move(card, term, to);
      },
    },
  };
}

function ConceptCard({
  cards,
  card,
  index,
  acts,
  behind,
  off,
}: {
  cards: readonly Card[];
  card: Card;
  index: number;
  acts: BoardActs;
  behind: Behind;
  off: readonly OffTerm[];
}) {
  const drop = useDrop(acts, index);
  return (
    <div
      {...(card.kind === "Concept" ? drop.on : {})}
      className={`flex min-w-0 flex-1 flex-col overflow-hidden rounded-md border bg-raised px-2 py-1.5
        ${drop.over ? "border-pine" : "border-line"}`}
    >
      <CardHead card={card} index={index} acts={acts} />
      <div className={`${columns} text-right text-[11.5px] text-faint`} aria-hidden="true">
        <span />
        <span />
        <span>works</span>
        <span className="whitespace-nowrap">only it</span>
      </div>
      <ul className="min-h-0 flex-1 overflow-y-auto" aria-label={`Terms of ${card.letter ?? "the block"}`}>
        {off.map((o) => (
          <OffRow key={o.text} term={o} acts={acts} />
        ))}
        <TermRows cards={cards} card={index} acts={acts} behind={behind} />
        {card.kind === "Concept" && (
          <li className={`${columns} h-6`}>
            <span aria-hidden="true" className="text-center text-faint">
              +
            </span>
            <div className="col-span-3">
              <AddTerm
                label={`Add a term to ${card.letter ?? ""}`}
                placeholder="or …"
                onAdd={(text) => acts.add(index, text)}
              />
            </div>
          </li>
        )}
      </ul>
    </div>
  );
}

/** A term that is switched off for a look. */
function OffRow({ term, acts }: { term: OffTerm; acts: BoardActs }) {
  return (
    <li className={`${columns} h-6 text-[12.5px] text-faint`}>
      <input
        type="checkbox"
        checked={false}
        onChange={() => acts.switchOn(term)}
        aria-label={`${term.text} is off; tick to use it again`}
        className="size-[13px] accent-[var(--pine)]"
      />
      <span className="col-span-3 truncate">{term.text}, switched off</span>
    </li>
  );
}

/** At the right of the concepts: one more concept, what must not stand, limits, and terms whose card was switched off with them. */
function SideCard({
  cards,
  acts,
  behind,
  off,
}: {
  cards: readonly Card[];
  acts: BoardActs;
  behind: Behind;
  off: readonly OffTerm[];
}) {
  const drop = useDrop(acts, without);
  const refused = cards.findIndex((c) => c.kind === "Without");
  const limits = cards.flatMap((card, index) => (card.kind === "Limit" ? [index] : []));
  const card = cards[refused];
  // Only terms with their numbers ask for more than the usual width.
  const width = card || limits.length > 0 ? "w-[max(172px,calc(96px+var(--works)+var(--only)))]" : "w-[172px]";
  return (
    <div
      {...drop.on}
      className={`flex ${width} shrink-0 flex-col overflow-y-auto rounded-md border bg-raised px-2.5 py-1.5 text-[12.5px]
        ${drop.over ? "border-aside" : "border-line"}`}
    >
      <div className="flex items-center gap-1.5">
        <span className="text-[11.5px] whitespace-nowrap text-quiet">and also</span>
        <AddTerm label="Add a concept" placeholder="a concept" onAdd={(text) => acts.add(cards.length, text)} />
      </div>
      <h3 className="mt-1 flex items-baseline justify-between border-t border-line pt-1 text-[13px] font-semibold text-aside">
        without{" "}
        {card && (
          <b className="text-[14px]">
            {card.count > 0 && "−"}
            {count(card.count)}
          </b>
        )}
      </h3>
      <ul aria-label="Excluded terms">
        <TermRows cards={cards} card={refused} acts={acts} behind={behind} />
        <li>
          <AddTerm label="Add a term to exclude" placeholder="not …" onAdd={(text) => acts.add(without, text)} />
        </li>
      </ul>
      {card && (card.keptHit > 0 || card.stays > 0) && (
        <p className="text-[11.5px] text-quiet">
          {card.keptHit > 0 && <span className="font-semibold text-aside">removes {count(card.keptHit)} kept </span>}
          {card.stays > 0 && (
            <>
              {count(card.stays)} stay through another record;{" "}
              <TextButton
                className="min-h-6 text-ink"
                onClick={() => behind.sets.alsoWithout(card.rows.map((r) => asTerm(r.text, card.scope)))}
              >
                drop them too
              </TextButton>
            </>
          )}
        </p>
      )}
      {(limits.length > 0 || off.length > 0) && (
        <ul aria-label="Limits" className="mt-1 border-t border-line pt-1">
          {limits.map((index) => (
            <TermRows key={index} cards={cards} card={index} acts={acts} behind={behind} />
          ))}
          {off.map((o) => (
            <OffRow key={o.text} term={o} acts={acts} />
          ))}
        </ul>
      )}
    </div>
  );
}
