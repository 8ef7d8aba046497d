import { DropdownMenu } from "radix-ui";
import { useState, type CSSProperties } from "react";
import { MenuFrame, MenuItem, MenuLine } from "../../../ui/Menu";
import { count } from "../../../ui/numbers";
import { WordsSheet } from "./WordsSheet";
import { AddTerm } from "./AddTerm";
import type { Behind } from "./Board";
import { without, type BoardActs, type Card, type Row } from "./useBoard";
import { Press } from "../../../ui/Press";

export const columns = "grid grid-cols-[15px_minmax(0,1fr)_var(--works)_var(--only)] items-center gap-1";

/** A limit or a block has nothing that only it brings in; its words take that room. */
const wide = "grid grid-cols-[15px_minmax(0,1fr)_var(--works)] items-center gap-1";

const room = (largest: number) => `${Math.max(38, Math.ceil(6.8 * count(largest).length) + 2)}px`;

/** How wide the columns of numbers are, so that the largest of each stands in them whole. */
export const numberColumns = (rows: readonly Row[]): CSSProperties =>
  ({
    "--works": room(Math.max(0, ...rows.map((r) => r.count))),
    "--only": room(Math.max(0, ...rows.map((r) => r.onlyIt ?? 0))),
  }) as CSSProperties;

/** A row that is dragged, as the browser carries it. */
export const dragType = "application/x-zendle-term";

/**
 * A term on its card: switched on or off, written anew in place, moved, taken out. By key on the term: Enter writes,
 * Delete takes out, Space switches off,
 * Alt with an arrow moves it to the card beside.
 */
function TermRow({
  cards,
  card,
  term,
  row,
  most,
  acts,
  behind,
}: {
  cards: readonly Card[];
  card: number;
  term: number;
  row: Row;
  most: number;
  acts: BoardActs;
  behind: Behind;
}) {
  const [writing, setWriting] = useState(false);
  const [words, setWords] = useState(false);
  const own = cards[card];
  const isWithout = own?.kind === "Without";
  const { sets, place } = behind;
  // What a concept's only term brings in is the whole set, which is in view already.
  const opensOnly = row.onlyIt !== null && row.onlyIt > 0 && (isWithout || (own?.rows.length ?? 0) > 1);
  const openOnly = () => sets.onlyIt(card, term, row.text, isWithout);
  const places = [
    ...cards.flatMap((c, i) => (c.kind === "Concept" && i !== card ? [{ to: i, name: `to ${c.letter ?? ""}` }] : [])),
    ...((own?.rows.length ?? 0) > 1 || isWithout ? [{ to: cards.length, name: "Move to its own concept" }] : []),
    ...(isWithout ? [] : [{ to: without, name: "to “without”" }]),
  ];
  if (writing)
    return (
      <li className={`${columns} h-6`}>
        <span />
        <div className="col-span-3">
          <AddTerm
            label={`Write ${row.text} anew`}
            placeholder=""
            initial={row.text}
            focus
            onAdd={(text) => {
              setWriting(false);
              if (text !== row.text) acts.change(card, term, text);
            }}
            onLeave={() => setWriting(false)}
          />
        </div>
      </li>
    );
  return (
    <li
      className={`${row.onlyIt === null ? wide : columns} group relative h-6 text-[12.5px]`}
      draggable
      onDragStart={(e) => {
        e.dataTransfer.setData(dragType, JSON.stringify({ card, term }));
        e.dataTransfer.effectAllowed = "move";
      }}
    >
      <input
        type="checkbox"
        checked
        onChange={() => acts.switchOff(card, term)}
        aria-label={`${row.text} is on; untick to search without it`}
        className="size-[13px] accent-[var(--pine)]"
      />
      <Press
        onClick={() => setWriting(true)}
        onKeyDown={(e) => {
          const beside = e.altKey ? { ArrowLeft: card - 1, ArrowRight: card + 1 }[e.key] : undefined;
          if (beside !== undefined && cards[beside]?.kind === "Concept") acts.move(card, term, beside);
          else if (e.altKey && e.key === "ArrowRight") acts.move(card, term, cards.length);
          else if (e.altKey && e.key === "ArrowDown") acts.move(card, term, without);
          else if (e.key === "Delete") acts.remove(card, term);
          else if (e.key === " ") acts.switchOff(card, term);
          else return;
          e.preventDefault();
          e.stopPropagation();
        }}
        title={meaningOf(row)}
        className={`relative truncate pb-[3px] text-left leading-[18px] ${isWithout ? "text-aside" : ""}`}
      >
        {isWithout ? <s>{row.text}</s> : row.text}
        <i
          aria-hidden="true"
          className="absolute bottom-0 left-0 h-[2.5px] rounded-sm bg-measure"
          style={{ width: `${(100 * row.count) / most}%` }}
        />
      </Press>
      <Press
        tabIndex={-1}
        className="rounded text-right hover:bg-mist hover:underline"
        aria-label={`Open the ${count(row.count)} works that ${row.text} finds`}
        onClick={() => sets.ofTerm(row.text, own?.scope ?? "about")}
      >
        {count(row.count)}
      </Press>
      {row.onlyIt !== null && (
        <span
          className={`text-right ${row.keptHit > 0 ? "font-semibold text-aside" : "text-quiet"}`}
          title={
            isWithout
              ? `${count(row.onlyIt)} works are removed by this term alone, ${count(row.keptHit)} of them kept; ` +
                `${count(row.stays)} stay through another record`
              : undefined
          }
        >
          {opensOnly ? (
            <Press
              tabIndex={-1}
              className="rounded hover:bg-mist hover:underline"
              aria-label={
                `Open the ${count(row.onlyIt)} works that only ${row.text} ` + (isWithout ? "takes away" : "brings in")
              }
              onClick={openOnly}
            >
              {isWithout && "−"}
              {count(row.onlyIt)}
            </Press>
          ) : (
            count(row.onlyIt)
          )}
        </span>
      )}
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          aria-label={`What to do with ${row.text}`}
          className={`absolute
            ${row.onlyIt === null ? "right-[calc(2px+var(--works))]" : "right-[calc(6px+var(--works)+var(--only))]"}
            h-[19px] w-[17px] rounded bg-raised text-quiet opacity-0 group-hover:opacity-100 hover:text-ink
            focus-visible:opacity-100 data-[state=open]:opacity-100`}
        >
          ⋮
        </DropdownMenu.Trigger>
        <MenuFrame width={210} align="end">
          <MenuItem onSelect={() => sets.ofTerm(row.text, own?.scope ?? "about")} aside={count(row.count)}>
            Show what it finds
          </MenuItem>
          {opensOnly && (
            <MenuItem onSelect={openOnly} aside={count(row.onlyIt ?? 0)}>
              {isWithout ? "Show what only it excludes" : "Show what only it adds"}
            </MenuItem>
          )}
          {/[*?]/.test(row.text) && (
            // The menu gives the focus back first; then the sheet may take it.
            <MenuItem onSelect={() => setTimeout(() => setWords(true))}>See its words …</MenuItem>
          )}
          <MenuLine />
          <MenuItem onSelect={() => setTimeout(() => setWriting(true))} aside="Enter">
            Edit it
          </MenuItem>
          {places.map((p) => (
            <MenuItem key={p.to} onSelect={() => acts.move(card, term, p.to)}>
              Move {p.name}
            </MenuItem>
          ))}
          <MenuItem onSelect={() => acts.remove(card, term)} aside="Delete">
            Remove it
          </MenuItem>
        </MenuFrame>
      </DropdownMenu.Root>
      {words && (
        <WordsSheet
          reviewId={place.reviewId}
          stepId={place.stepId}
          term={row.text}
          scope={own?.scope ?? "about"}
          onTake={(text) => acts.change(card, term, text)}
          close={() => setWords(false)}
        />
      )}
    </li>
  );
}

/** What a row asks for, and how many works it stands in by their authors' keywords and by controlled terms. */
const meaningOf = (row: Row) =>
  row.byKeywords === null || row.byControlled === null || row.byKeywords + row.byControlled === 0
    ? row.meaning
    : `${row.meaning}; among the authors’ keywords of ${count(row.byKeywords)} works, ` +
      `among the controlled terms of ${count(row.byControlled)}`;

/** The terms of a card, each measured against the one that finds most. */
export function TermRows({
  cards,
  card,
  acts,
  behind,
}: {
  cards: readonly Card[];
  card: number;
  acts: BoardActs;
  behind: Behind;
}) {
  const rows = cards[card]?.rows ?? [];
  const most = Math.max(1, ...rows.map((r) => r.count));
  return rows.map((row, term) => (
    <TermRow key={row.text} cards={cards} card={card} term={term} row={row} most={most} acts={acts} behind={behind} />
  ));
}
