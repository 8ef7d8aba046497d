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

const trailOrders: [SortOrder, string][] = [["Ties", "ties"], ...orders.slice(1)];

/** The order of the list; in a trail, ties stand in the place of relevance. */
export function SortMenu({
  sort,
  onSort,
  inTrail = false,
}: {
  sort: SortOrder;
  onSort: (sort: SortOrder) => void;
  inTrail?: boolean;
}) {
  const offered = inTrail ? trailOrders : orders;
  const word = offered.find(([o]) => o === sort)?.[1] ?? "relevance";
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
