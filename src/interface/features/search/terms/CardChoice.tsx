import { Select } from "../../../ui/Input";
import type { TermsContext } from "./context";

/** Which concept a term goes to. */
export function CardChoice({
  context,
  card,
  onCard,
  label,
}: {
  context: TermsContext;
  card: number;
  onCard: (card: number) => void;
  label: string;
}) {
  return (
    <Select
      aria-label={label}
      value={card}
      onChange={(e) => onCard(Number(e.target.value))}
      className="h-[24px] !px-1 text-[12px]"
    >
      {context.cards.map((c, i) =>
        c.kind === "Concept" ? <option key={i} value={i}>{`to ${c.letter ?? ""}`}</option> : null,
      )}
      <option value={context.cards.length}>new concept</option>
    </Select>
  );
}
