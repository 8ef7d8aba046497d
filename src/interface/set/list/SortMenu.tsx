import { DropdownMenu } from "radix-ui";
import { MenuFrame, menuItem } from "../../ui/Menu";
import type { SortOrder } from "../useSet";
import { barButton } from "../../ui/Button";

const orders: [SortOrder, string][] = [
  ["Relevance", "relevance"],
  ["Newest", "newest"],
  ["Oldest", "oldest"],
  ["Cited", "cited"],
  ["CitedPerYear", "cited per year"],
  ["Title", "title"],
  ["Person", "first author"],
  ["Venue", "venue"],
];

/** What stands first: in a trail ties, among neighbours likeness, in the place of relevance. */
const leads: Partial<Record<SortOrder, string>> = { Ties: "ties", Likeness: "likeness" };

/** The order of the list. */
export function SortMenu({
  sort,
  onSort,
  lead = "Relevance",
}: {
  sort: SortOrder;
  onSort: (sort: SortOrder) => void;
  /** The order that the list has by itself. */
  lead?: SortOrder;
}) {
  const offered: [SortOrder, string][] = [[lead, leads[lead] ?? "relevance"], ...orders.slice(1)];
  const word = offered.find(([o]) => o === sort)?.[1] ?? leads[lead] ?? "relevance";
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className={barButton}>
        by <b className="font-semibold text-ink">{word}</b>
      </DropdownMenu.Trigger>
      <MenuFrame width={160} align="end">
        <DropdownMenu.RadioGroup value={sort} onValueChange={(v) => onSort(v as SortOrder)}>
          {offered.map(([order, label]) => (
            <DropdownMenu.RadioItem key={order} value={order} className={menuItem}>
              {label}
            </DropdownMenu.RadioItem>
          ))}
        </DropdownMenu.RadioGroup>
      </MenuFrame>
    </DropdownMenu.Root>
  );
}
