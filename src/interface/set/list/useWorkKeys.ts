import { useKeys } from "../../ui/keys";
import type { Decide } from "../decide/useDecisions";
import type { DecisionSheet } from "../decide/DecisionSheets";
import { useUndo } from "../decide/useDecisions";
import type { ListHandle } from "./WorkList";
import type { Follow } from "../useTrail";

/**
 * The keys that act on the work in view of a list: going through it, reading, keeping, setting aside, tagging, following its trails,
 * taking back. The same wherever there is a list of works.
 */
export function useWorkKeys({
  reviewId,
  list,
  workId,
  open,
  pane,
  decide,
  ask,
  follow,
}: {
  reviewId: number;
  /** The list that the keys go through. */
  list: () => ListHandle | null;
  workId: number | null;
  open: (id: number) => void;
  pane: React.RefObject<HTMLElement | null>;
  decide: Decide;
  ask: (sheet: DecisionSheet) => void;
  follow: Follow;
}): (act: (id: number) => void) => () => boolean {
  const undo = useUndo(reviewId);
  const onWork = (act: (id: number) => void) => () => {
    const id = list()?.current() ?? workId;
    if (id === null) return false;
    act(id);
    return true;
  };
  const asking = (kind: "aside" | "tag") =>
    onWork((id) => {
      open(id);
      ask({ kind, workId: id });
    });
  useKeys({
    j: () => list()?.move(1),
    k: () => list()?.move(-1),
    ArrowDown: () => list()?.move(1),
    ArrowUp: () => list()?.move(-1),
    Enter: onWork((id) => {
      open(id);
      pane.current?.focus();
    }),
    p: onWork((id) => decide.one(id, "Keep")),
    x: asking("aside"),
    t: asking("tag"),
    "[": onWork((id) => follow([id], "Backward")),
    "]": onWork((id) => follow([id], "Forward")),
    "=": onWork((id) => follow([id], "Neighbours")),
    u: () => {
      undo();
      return true;
    },
  });
  return onWork;
}
