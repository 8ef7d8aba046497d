import { useHeld } from "./useHeld";
import { heldSentence, heldWord } from "./words";

/** How a text can be had, in the words of a row: what the records say, or what the person's libraries add to that. */
export function HowToGet({ reviewId, workId, said }: { reviewId: number; workId: number; said: string }) {
  const held = useHeld(reviewId, workId).data;
  return <span title={(held && heldSentence(held)) ?? undefined}>{(held && heldWord(held)) ?? said}</span>;
}

/** What the person's libraries hold of a work, in a sentence; nothing where they use none. */
export function HeldLine({ reviewId, workId }: { reviewId: number; workId: number }) {
  const held = useHeld(reviewId, workId).data;
  const sentence = held && heldSentence(held);
  return sentence ? <p data-held={held.coverage ?? ""}>{sentence}</p> : null;
}
