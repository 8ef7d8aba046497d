import { useState } from "react";
import { Button } from "../../../ui/Button";
import { Input } from "../../../ui/Input";
import { CardChoice } from "./CardChoice";
import type { TermsContext } from "./context";
import { Trial } from "./Trial";

/** A term of one's own, tried like an offered one. */
export function OwnTerm({ context }: { context: TermsContext }) {
  const [text, setText] = useState("");
  const [tried, setTried] = useState("");
  const first = context.cards.findIndex((c) => c.kind === "Concept");
  const [chosen, setCard] = useState<number | null>(null);
  const card = chosen ?? (first < 0 ? context.cards.length : first);
  return (
    <div className="border-b border-soft px-[18px] pb-2">
      <form
        className="flex items-center gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          setTried(text.trim());
        }}
      >
        <Input
          aria-label="A term to try"
          placeholder="a term of your own"
          value={text}
          onChange={(e) => setText(e.target.value)}
          className="h-[28px] min-w-0 flex-1 text-[13px]"
        />
        <CardChoice context={context} card={card} onCard={setCard} label="Concept of the term" />
        <Button type="submit" className="!h-[28px]" disabled={text.trim() === ""}>
          Try
        </Button>
      </form>
      {tried !== "" && (
        <div className="mt-1.5">
          <Trial
            context={context}
            expression={tried}
            card={card}
            onTake={() => {
              context.take([{ expression: tried, card }]);
              setTried("");
              setText("");
            }}
          />
        </div>
      )}
    </div>
  );
}
