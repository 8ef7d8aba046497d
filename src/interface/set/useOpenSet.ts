import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, read, type Dto } from "../api/client";
import { useSayFault } from "../ui/Toasts";
import type { Place, StepAct } from "./useSet";

/** One act of the way to a set; a comparison names the step it is held against, or brings that search with it. */
export interface Leading {
  act: StepAct;
  otherStepId?: number;
}

/**
 * Opens a set behind a number: its acts are taken one after the other, from a step or from nothing (0), and the last
 * one comes into view.
 */
export function useOpenSet(place: Place) {
  const client = useQueryClient();
  const fault = useSayFault();
  const { reviewId, change } = place;
  const { mutate } = useMutation({
    mutationFn: async ({ from, acts }: { from: number; acts: readonly Leading[] }) => {
      let step = from;
      for (const { act, otherStepId } of acts) {
        const taken = await read(
          api.POST("/api/reviews/{reviewId}/steps", {
            params: { path: { reviewId } },
            body: { parentId: step, act, otherStepId: otherStepId ?? null },
          }),
        );
        step = taken.stepId;
      }
      return step;
    },
    onSuccess: (step) => {
      void client.invalidateQueries({ queryKey: ["review", reviewId, "path"] });
      void client.invalidateQueries({ queryKey: ["review", reviewId, "paths"] });
      change({ step: String(step), work: null, say: null });
    },
    onError: fault,
  });
  return (from: number, acts: readonly Leading[]) => mutate({ from, acts });
}

type State = Dto<"SearchStateDto"> | null;
type Line = Dto<"LedgerLineDto">;

/** Whether anything beside the line and the databases holds works back. */
export function isNarrowed(state: State): boolean {
  return (
    state !== null &&
    (state.from !== null ||
      state.to !== null ||
      state.narrowings.length > 0 ||
      state.inside.length > 0 ||
      state.whereItCites !== "" ||
      state.others.length > 0 ||
      state.among !== null)
  );
}

/** The sets behind the numbers of the board and its ledger, for a line as it stands. */
export function useSetsOfLine(place: Place, line: string, state: State) {
  const open = useOpenSet(place);
  const { reviewId } = place;
  const fault = useSayFault();
  const search = (expression: string): StepAct => ({ kind: "Search", expression });
  const within = (databases: readonly number[]): StepAct[] =>
    databases.length > 0 ? [{ kind: "Databases", databases: [...databases] }] : [];
  const chosen = state?.databases ?? [];
  const leading = (acts: readonly StepAct[]): Leading[] => acts.map((act) => ({ act }));
  /** The line with a row taken out of its card. */
  const less = (card: number, term: number) =>
    read(
      api.POST("/api/reviews/{reviewId}/reading/board", {
        params: { path: { reviewId } },
        body: { text: line, edit: { kind: "Remove", card, term, text: "", to: 0, scope: "About", near: null } },
      }),
    );
  return {
    /** What one database finds. */
    inDatabase: (d: Line) => open(0, leading([search(line), ...within([d.databaseId])])),
    /** What no other database finds; its extracts count with it. */
    onlyIn: (d: Line, all: readonly Line[]) => {
      const others = all.filter((o) => o.chosen && o.databaseId !== d.databaseId && o.partOf !== d.databaseId);
      const apart: StepAct = {
        kind: "Compare",
        apart: true,
        said: `only in ${d.name}`,
        other: [search(line), ...within(others.map((o) => o.databaseId))],
      };
      open(0, leading([search(line), ...within(chosen), apart]));
    },
    /** All of it, before narrowing. */
    whole: () => open(0, leading([search(line), ...within(chosen)])),
    /** What one term finds by itself. */
    ofTerm: (text: string, scope: string) => open(0, leading([search(asTerm(text, scope)), ...within(chosen)])),
    /** What only one term brings in, or, of what must not stand, what only it takes away. */
    onlyIt: (card: number, term: number, text: string, takesAway: boolean) => {
      less(card, term).then(({ text: rest }) => {
        const [from, against] = takesAway ? [rest, line] : [line, rest];
        const apart: StepAct = {
          kind: "Compare",
          apart: true,
          said: takesAway ? `removed by ${text}` : `only by ${text}`,
          other: [search(against), ...within(chosen)],
        };
        open(0, leading([search(from), ...within(chosen), apart]));
      }, fault);
    },
    /** The line without works of which any record has one of some terms, though another record of theirs has none. */
    alsoWithout: (terms: readonly string[]) => {
      const apart: StepAct = {
        kind: "Compare",
        apart: true,
        said: `no record with ${terms.join(", ")}`,
        other: [search(terms.join(" OR ")), ...within(chosen)],
      };
      // A line that is in view already is gone on from, with all that narrows it.
      if (state?.expression === line) open(place.stepId, leading([apart]));
      else open(0, leading([search(line), ...within(chosen), apart]));
    },
    /** Certain works, written down. */
    these: (works: readonly number[], said: string) => open(0, leading([{ kind: "Among", works: [...works], said }])),
  };
}

/** A row of a card as an expression of its own. */
export const asTerm = (text: string, scope: string): string => (scope === "about" ? text : `${scope}:(${text})`);

export type SetsOfLine = ReturnType<typeof useSetsOfLine>;
