import type { Dto } from "../../../api/client";
import type { Decide } from "../../../set/decide/useDecisions";
import type { Line } from "./useTerms";

/** What the parts of the pane share: the line, its board, how terms are taken and works judged. */
export interface TermsContext {
  line: Line;
  cards: readonly Dto<"BoardCardDto">[];
  take: (taken: readonly { expression: string; card: number }[]) => void;
  isTaking: boolean;
  decide: Decide;
  /** Asks why a work is set aside. */
  setAside: (work: number) => void;
}
