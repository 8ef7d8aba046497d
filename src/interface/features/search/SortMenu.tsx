import { DropdownMenu } from "radix-ui";
import type { Place, SortOrder } from "./useSearch";

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

/** The order of the list. */
export function SortMenu({ place }: { place: Place }) {
  const word = orders.find(([o]) => o === place.sort)?.[1] ?? "relevance";
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
          <DropdownMenu.RadioGroup
            value={place.sort}
            onValueChange={(v) => place.change({ sort: v === "Relevance" ? null : v })}
          >
            {orders.map(([order, label]) => (
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
