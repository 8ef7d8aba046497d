import { Popover } from "radix-ui";
import { PopOver } from "../../../ui/PopOver";
import { count } from "../../../ui/numbers";
import type { BoardActs, Card } from "./useBoard";

const scopes: [string, string, string][] = [
  ["about", "About", "title, abstract, keywords"],
  ["title", "Title", "title"],
  ["abstract", "Abstract", "abstract"],
  ["keywords", "Keywords", "keywords"],
  ["anywhere", "Anywhere", "anywhere in the record, or in its gathered text"],
  ["text", "Full texts", "in gathered full texts"],
  ["author", "Author", "people"],
  ["venue", "Venue", "venue"],
];

/** Letter, how the terms count and where they are looked for, and the concept's own count. A click on the middle changes it. */
export function CardHead({ card, index, acts }: { card: Card; index: number; acts: BoardActs }) {
  const where = scopes.find(([name]) => name === card.scope)?.[2] ?? card.scope;
  const how =
    card.kind === "Block"
      ? "as one block"
      : card.near !== null
        ? `within ${card.near} words, ${where}`
        : card.rows.length === 1
          ? `in ${where}`
          : `any of ${card.rows.length}, ${where}`;
  return (
    <h3 className="flex items-baseline gap-2 text-[13px] font-semibold">
      <span className={`concept concept-${card.letter ?? ""}`}>{card.letter}</span>
      {card.kind === "Concept" ? (
        <Popover.Root>
          <Popover.Trigger
            className={`min-w-0 flex-1 truncate text-left font-normal text-quiet underline decoration-line
              decoration-dotted underline-offset-2 hover:decoration-ink`}
            title="Where and how its terms are looked for"
          >
            {how}
          </Popover.Trigger>
          <PopOver label={`Where and how the terms of ${card.letter ?? ""} are looked for`} width={330}>
            <fieldset>
              <legend className="mb-1 text-[12px] text-quiet">Search its terms in</legend>
              {scopes.map(([name, value, words]) => (
                <Choice
                  key={name}
                  group="scope"
                  checked={card.scope === name}
                  onChoose={() => acts.scope(index, value)}
                >
                  {words}
                </Choice>
              ))}
            </fieldset>
            <fieldset className="mt-2 border-t border-line pt-2">
              <legend className="sr-only">How its terms combine</legend>
              <Choice group="near" checked={card.near === null} onChoose={() => acts.near(index, null)}>
                any of them (OR)
              </Choice>
              <Choice
                group="near"
                checked={card.near !== null}
                disabled={card.rows.length < 2}
                onChoose={() => acts.near(index, 5)}
              >
                all near each other, within
                <input
                  type="number"
                  min={0}
                  max={50}
                  value={card.near ?? 5}
                  disabled={card.near === null}
                  onChange={(e) => acts.near(index, Math.max(0, Math.min(50, Number(e.target.value))))}
                  aria-label="words between neighbours"
                  className="h-[24px] w-[52px] rounded border border-edge bg-raised px-1 disabled:opacity-50"
                />
                words
              </Choice>
            </fieldset>
          </PopOver>
        </Popover.Root>
      ) : (
        <span className="min-w-0 flex-1 truncate font-normal text-quiet">{how}</span>
      )}
      <b className="text-[14px] font-bold">{count(card.count)}</b>
    </h3>
  );
}

function Choice({
  group,
  checked,
  disabled = false,
  onChoose,
  children,
}: {
  group: string;
  checked: boolean;
  disabled?: boolean;
  onChoose: () => void;
  children: React.ReactNode;
}) {
  return (
    <label className={`flex h-[26px] items-center gap-2 text-[13px] ${disabled ? "text-faint" : ""}`}>
      <input
        type="radio"
        name={group}
        checked={checked}
        disabled={disabled}
        onChange={onChoose}
        className="accent-[var(--pine)]"
      />
      {children}
    </label>
  );
}
