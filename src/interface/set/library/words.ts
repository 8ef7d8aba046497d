import type { Dto } from "../../api/client";
import { dayOf } from "../../ui/days";

type Way = Dto<"TextWayDto">;

/** How a text can be had, in the words of the list; null where what the records say is all there is. */
export function wayWord(way: Way | null | undefined): string | null {
  switch (way?.way) {
    case "Library":
      return way.verdict === "Held" ? "through your library" : "perhaps through your library";
    case "LoanOnly":
      return way.verdict === "Embargoed" && way.opensOn ? `your library, from ${dayOf(way.opensOn)}` : "loan only";
    default:
      return null;
  }
}

const years = ({ from, to }: Way) =>
  from !== null && to !== null
    ? `${from}–${to}`
    : from !== null
      ? `${from} to today`
      : to !== null
        ? `to ${to}`
        : "all years";

/** What a person's libraries say of a work, in a sentence; null without any. */
export function heldWords(way: Way): string | null {
  const { library, verdict } = way;
  if (library === null) return null;
  switch (verdict) {
    case "Held":
      return `${library} holds it (${years(way)}${way.embargo ? `, embargo ${way.embargo}` : ""}).`;
    case "PerhapsHeld":
      return `${library} may hold it (${years(way)}): the records do not say exactly enough when it appeared.`;
    case "Embargoed":
      return `${library} holds the title, with an embargo${way.opensOn ? ` until ${dayOf(way.opensOn)}` : ""}.`;
    case "Earlier":
      return `${library} holds the title only from ${way.from ?? "a later year"} on.`;
    case "Later":
      return `${library} holds the title only to ${way.to ?? "an earlier year"}.`;
    case "AbstractsOnly":
      return `${library} has abstracts of it only.`;
    default:
      return `${library} does not hold it.`;
  }
}
