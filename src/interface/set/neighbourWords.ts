import type { Dto } from "../api/client";
import { count } from "../ui/numbers";
import type { NeighbourKind } from "./useTrail";

/** The kinds of neighbours, in the order they stand everywhere. */
export const kinds: readonly NeighbourKind[] = ["SharedReferences", "CitedTogether", "SharedTerms", "SharedPeople"];

/** What a kind is called. */
export const kindName: Record<NeighbourKind, string> = {
  SharedReferences: "shared references",
  CitedTogether: "cited together",
  SharedTerms: "shared terms",
  SharedPeople: "shared people",
  Tied: "ties to seeds",
};

/** What a kind means, for tooltips. */
export const kindMeaning: Record<NeighbourKind, string> = {
  SharedReferences: "They cite works that the seeds cite too",
  CitedTogether: "Other works cite them together with a seed",
  SharedTerms: "They have at least three of the words that set the seeds apart",
  SharedPeople: "They have an author or editor of a seed",
  Tied: "They cite a seed or are cited by one",
};

/** Several kinds in a sentence. */
export const kindsSaid = (some: readonly NeighbourKind[]): string =>
  some.length === kinds.length ? "of any kind" : some.map((k) => kindName[k]).join(", ");

const times = (n: number, one: string, many: string) => `${count(n)} ${n === 1 ? one : many}`;

/** Why a work is a neighbour, in numbers; what it does not have is not said. */
export function whyNeighbour(common: Dto<"InCommonDto">): string {
  const { references, together, terms, people } = common;
  return [
    references ? times(references, "shared reference", "shared references") : null,
    together ? `cited together ${together === 1 ? "once" : times(together, "time", "times")}` : null,
    terms ? times(terms, "shared term", "shared terms") : null,
    people ? times(people, "shared person", "shared people") : null,
  ]
    .filter(Boolean)
    .join(" · ");
}
