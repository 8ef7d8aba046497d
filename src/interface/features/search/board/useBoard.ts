import { useMutation } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { api, read, type Dto } from "../../../api/client";
import { useSayFault } from "../../../ui/Toasts";

export type Card = Dto<"BoardCardDto">;
export type Row = Dto<"BoardRowDto">;

/** Number of the card that holds what must not stand. */
export const without = -1;

/** A term that is switched off for a look: it stands on the board, but not in the line. */
export interface OffTerm {
  text: string;
  /** The card it came from; null when it was the card's only term. */
  card: number | null;
}

export interface BoardActs {
  add: (card: number, text: string) => void;
  change: (card: number, term: number, text: string) => void;
  remove: (card: number, term: number) => void;
  move: (card: number, term: number, to: number) => void;
  scope: (card: number, scope: string) => void;
  near: (card: number, near: number | null) => void;
  switchOff: (card: number, term: number) => void;
  switchOn: (off: OffTerm) => void;
}

type Edit = Dto<"BoardEdit">;

/** An act on a card; what an act does not speak of is left out. */
const edit = (kind: Edit["kind"], card: number, rest: Partial<Edit> = {}): Edit => ({
  kind,
  card,
  term: -1,
  text: "",
  to: 0,
  scope: "About",
  near: null,
  ...rest,
});

/** The line after an act on its board. */
const edited = (reviewId: number, text: string, act: Edit) =>
  read(
    api.POST("/api/reviews/{reviewId}/reading/board", {
      params: { path: { reviewId } },
      body: { text, edit: act },
    }),
  );

/** The line with terms added to a card. */
export const withTerms = async (reviewId: number, text: string, card: number, terms: string) =>
  (await edited(reviewId, text, edit("Add", card, { text: terms }))).text;

/** An act that has yet to be made: it finds its row on the board as it then is, or is dropped. */
interface Waiting {
  make: (cards: readonly Card[]) => Edit | null;
  done: (() => void) | undefined;
}

/** Where a row stands: on the card it was seen on, or on another if it went there meanwhile. */
function find(cards: readonly Card[], card: number, text: string | undefined): { card: number; term: number } | null {
  for (const at of [card, ...cards.keys()]) {
    const term = cards[at]?.rows.findIndex((r) => r.text === text) ?? -1;
    if (term >= 0) return { card: at, term };
  }
  return null;
}

/** The terms switched off after one more; when its card went with it, the cards behind move up. */
function switchedOff(list: readonly OffTerm[], text: string, card: number, only: boolean): readonly OffTerm[] {
  const moved = list.map((o) =>
    !only || o.card === null || o.card < card ? o : { ...o, card: o.card === card ? null : o.card - 1 },
  );
  return [...moved, { text, card: only ? null : card }];
}

/**
 * Acts on the board of a line. Each is answered with the new line; nothing is searched before the line is. While the
 * board still shows an older line an act waits
 * for the new one, so that quick keys never act on what is gone.
 */
export function useBoard(reviewId: number, reading: Dto<"ReadingDto">, line: string, onLine: (text: string) => void) {
  const fault = useSayFault();
  const [off, setOff] = useState<readonly OffTerm[]>([]);
  const waiting = useRef<Waiting[]>([]);
  const cards = reading.board;
  const { mutate, isPending } = useMutation({
    mutationFn: (act: Edit) => edited(reviewId, line, act),
    onSuccess: ({ text }) => onLine(text),
    onError: fault,
  });
  const next = useCallback(() => {
    const act = isPending || reading.text !== line ? undefined : waiting.current.shift();
    const made = act?.make(cards);
    if (made) mutate(made, act?.done ? { onSuccess: act.done } : undefined);
  }, [isPending, reading.text, line, cards, mutate]);
  useEffect(next, [next]);

  const act = (make: Waiting["make"], done?: () => void) => {
    waiting.current.push({ make, done });
    next();
  };
  /** An act on a row, found again by its text. */
  const onRow = (card: number, term: number, kind: Edit["kind"], rest: Partial<Edit> = {}) => {
    const text = cards[card]?.rows[term]?.text;
    act((now) => {
      const place = find(now, card, text);
      return place ? edit(kind, place.card, { term: place.term, ...rest }) : null;
    });
  };
  const acts: BoardActs = {
    add: (card, text) => act(() => edit("Add", card, { text })),
    change: (card, term, text) => onRow(card, term, "Change", { text }),
    remove: (card, term) => onRow(card, term, "Remove"),
    move: (card, term, to) => onRow(card, term, "Move", { to }),
    scope: (card, scope) => act(() => edit("Scope", card, { scope: scope as Edit["scope"] })),
    near: (card, near) => act(() => edit("Near", card, { near })),
    switchOff: (card, term) => {
      const text = cards[card]?.rows[term]?.text;
      const gone = { card, only: false };
      act(
        (now) => {
          const place = find(now, card, text);
          if (!place) return null;
          gone.card = place.card;
          gone.only = now[place.card]?.rows.length === 1;
          return edit("Remove", place.card, { term: place.term });
        },
        () => {
          if (text !== undefined) setOff((list) => switchedOff(list, text, gone.card, gone.only));
        },
      );
    },
    switchOn: (term) => {
      // Where its card is gone it comes back as a concept of its own.
      act(
        (now) => edit("Add", term.card ?? now.length, { text: term.text }),
        () => setOff((list) => list.filter((o) => o !== term)),
      );
    },
  };
  return { acts, off };
}
