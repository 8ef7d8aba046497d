import type { useTakeStep } from "./useSet";

/** What can be done with something a work names: narrow the list in view to it, or start a new search for it. */
export interface Ask {
  /** Null where there is no list to narrow. */
  narrow: ((expression: string) => void) | null;
  anew: (expression: string) => void;
}

/** The two acts for the list in view: narrowing keeps all its steps, a new search keeps none. */
export function useAsk(take: ReturnType<typeof useTakeStep>, inside: readonly string[], onTaken?: () => void): Ask {
  return {
    narrow: (expression) => {
      if (!inside.includes(expression)) take.mutate({ act: { kind: "Inside", words: [...inside, expression] } });
    },
    anew: (expression) => take.mutate({ act: { kind: "Search", expression }, from: 0 }, { onSuccess: onTaken }),
  };
}
