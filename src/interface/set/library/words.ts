import type { Dto } from "../../api/client";
import { dayOf } from "../../ui/days";

type Held = Dto<"HeldDto">;

/** What a person's libraries add to how a text can be had, in the words of a list; null where that is nothing. */
export function heldWord({ isFree, isSold, coverage, opensOn }: Held): string | null {
  if (isFree) return null;
  if (coverage === "Held") return "through your library";
  if (coverage === "PerhapsHeld") return "perhaps through your library";
  if (coverage === "Embargoed" && opensOn) return `your library, from ${dayOf(opensOn)}`;
  return isSold ? "loan only" : null;
}

const years = ({ from, to }: Held) =>
  from !== null && to !== null
    ? `${from}–${to}`
    : from !== null
      ? `${from} to today`
      : to !== null
        ? `to ${to}`
        : "all years";

/** What a person's libraries say of a work, in a sentence; null without any. */
export function heldSentence(held: Held): string | null {
  const { library, coverage } = held;
  if (library === null) return null;
  switch (coverage) {
    case "Held":
      return `${library} holds it (${years(held)}${held.embargo ? `, embargo ${held.embargo}` : ""}).`;
    case "PerhapsHeld":
      return `${library} may hold it (${years(held)}): the records do not say exactly enough when it appeared.`;
    case "Embargoed":
      return `${library} holds the title, with an embargo${held.opensOn ? ` until ${dayOf(held.opensOn)}` : ""}.`;
    case "Earlier":
      return `${library} holds the title only from ${held.from ?? "a later year"} on.`;
    case "Later":
      return `${library} holds the title only to ${held.to ?? "an earlier year"}.`;
    case "AbstractsOnly":
      return `${library} has abstracts of it only.`;
    default:
      return `${library} does not hold it.`;
  }
}
