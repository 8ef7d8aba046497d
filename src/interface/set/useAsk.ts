import type { Dto } from "../api/client";
import type { useTakeStep } from "./useSet";

type State = Pick<Dto<"SearchStateDto">, "inside" | "narrowings">;

/** Something a work names: what asks for it in a line, and, for a person who is told apart, who it is. */
export interface Asked {
  expression: string;
  person?: string | null;
}

/** What can be done with something a work names: narrow the list in view to it, or start a new search for it. */
export interface Ask {
  /** Null where there is no list to narrow. */
  narrow: ((asked: Asked) => void) | null;
  anew: (asked: Asked) => void;
}

/** A person who is told apart is asked for as that person, whatever the name is; all else by its words. */
export const lineFor = ({ expression, person }: Asked): string =>
  person ? `person:"${person.replaceAll('"', " ")}"` : expression;

/** The two acts for the list in view: narrowing keeps all its steps, a new search keeps none. */
export function useAsk(take: ReturnType<typeof useTakeStep>, state: State | undefined, onTaken?: () => void): Ask {
  const { inside = [], narrowings = [] } = state ?? {};
  return {
    narrow: (asked) => {
      // A second person narrows further; as a value of the field it would stand beside the first.
      if (asked.person && !narrowings.some((n) => n.facet === "Person")) {
        take.mutate({ act: { kind: "Narrow", facet: "Person", values: [asked.person] } });
        return;
      }
      const line = lineFor(asked);
      if (!inside.includes(line)) take.mutate({ act: { kind: "Inside", words: [...inside, line] } });
    },
    anew: (asked) =>
      take.mutate({ act: { kind: "Search", expression: lineFor(asked) }, from: 0 }, { onSuccess: onTaken }),
  };
}
