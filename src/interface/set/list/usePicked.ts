import { useMemo, useState } from "react";

/** Works picked in the list to act on together. Another step begins with none. */
export function usePicked(stepId: number) {
  const [state, setState] = useState<{ step: number; ids: readonly number[] }>({ step: stepId, ids: [] });
  const ids = useMemo(() => (state.step === stepId ? state.ids : []), [state, stepId]);
  return {
    ids,
    has: (id: number) => ids.includes(id),
    flip: (id: number) =>
      setState((old) => {
        const now = old.step === stepId ? old.ids : [];
        return { step: stepId, ids: now.includes(id) ? now.filter((i) => i !== id) : [...now, id] };
      }),
    /** Picks all of a stretch of the list. */
    add: (more: readonly number[]) =>
      setState((old) => {
        const now = old.step === stepId ? old.ids : [];
        return { step: stepId, ids: [...now, ...more.filter((i) => !now.includes(i))] };
      }),
    clear: () => setState({ step: stepId, ids: [] }),
  };
}

export type Picked = ReturnType<typeof usePicked>;
