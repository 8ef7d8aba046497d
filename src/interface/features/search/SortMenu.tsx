import { DropdownMenu } from "radix-ui";
import type { SortOrder } from "./useSearch";

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
      <DropdownMenu.Trigger className="h-[26px] rounded-md border border-edge/70 bg-raised px-2 text-[12.5px] whitespace-nowrap text-quiet hover:border-ink">
        by <b className="font-semibold text-ink">{word}</b>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          sideOffset={5}
          className="z-50 min-w-[160px] rounded-md border border-line bg-raised py-1 shadow-xl"
        >
          <DropdownMenu.RadioGroup value={sort} onValueChange={(v) => onSort(v as SortOrder)}>
            {offered.map(([order, label]) => (
              <DropdownMenu.RadioItem
                key={order}
                value={order}
                className="px-3 py-1 text-[13px] outline-none data-[highlighted]:bg-mist data-[state=checked]:font-semibold"
              >
                {label}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
