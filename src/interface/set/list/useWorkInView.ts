import { useCallback, useRef, useState } from "react";
import type { DecisionSheet } from "../decide/DecisionSheets";
import { useDecide } from "../decide/useDecisions";
import type { ListHandle } from "./WorkList";
import type { Place, ShownField } from "../useSet";
import { useFollow } from "../useTrail";
import type { HitField } from "../../ui/HitStrip";
import type { Ask } from "../useAsk";
import { useWorkKeys } from "./useWorkKeys";

/**
 * What stands beside any list of works: the pane, the sheets that ask for a reason or a tag, and the keys that act on the
 * work in view. Where no work is asked for, the pane shows the first of the list.
 */
export function useWorkInView(place: Place, list: () => ListHandle | null, ask: Ask, first: number | null = null) {
  const { reviewId, stepId, change } = place;
  const workId = place.workId ?? first;
  const decide = useDecide(place);
  const follow = useFollow(reviewId);
  const [sheet, setSheet] = useState<DecisionSheet>(null);
  const paneRef = useRef<HTMLElement>(null);
  const [shown, setShown] = useState<ShownField | null>(null);
  const openWork = useCallback(
    (id: number | null) => change({ work: id === null ? null : String(id) }, true),
    [change],
  );
  const onWork = useWorkKeys({ reviewId, list, workId, open: openWork, pane: paneRef, decide, ask: setSheet, follow });
  return {
    decide,
    follow,
    openWork,
    onWork,
    paneRef,
    /** Opens a work in the pane where terms stand in one of its fields. */
    openAt: (id: number, field: HitField) => {
      openWork(id);
      setShown({ workId: id, field });
    },
    pane: {
      place,
      workId,
      decide,
      follow,
      ask,
      shown,
      onAside: (id: number) => setSheet({ kind: "aside", workId: id }),
      onTag: (id: number) => setSheet({ kind: "tag", workId: id }),
    },
    sheets: { reviewId, stepId, workId, open: sheet, close: () => setSheet(null), decide },
  };
}
