import { DropdownMenu } from "radix-ui";
import { MenuFrame, MenuItem, MenuLabel } from "../../ui/Menu";
import { barButton } from "../../ui/Button";
import { count, works } from "../../ui/numbers";
import { useOpenSet } from "../useOpenSet";
import type { Place, StepAct } from "../useSet";

/** More seeds than this a trail does not start from. */
const most = 5_000;

const ways: [string, string, StepAct][] = [
  ["Both ways", "past and future", { kind: "Trail", seeds: null, way: "Both" }],
  ["What they cite", "past", { kind: "Trail", seeds: null, way: "Backward" }],
  ["What cites them", "future", { kind: "Trail", seeds: null, way: "Forward" }],
  ["Their neighbours", "in common", { kind: "Neighbours", seeds: null, kinds: null }],
];

/** Follows trails from every work of the list, or asks for their neighbours. */
export function FollowMenu({ place, total }: { place: Place; total: number }) {
  const open = useOpenSet(place);
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        disabled={total === 0 || total > most}
        title={total > most ? `Trails start from at most ${count(most)} works: narrow the list first` : undefined}
        className={barButton}
      >
        Follow
      </DropdownMenu.Trigger>
      <MenuFrame width={230} align="end">
        <MenuLabel>{works(total)} as seeds</MenuLabel>
        {ways.map(([label, aside, act]) => (
          <MenuItem key={label} aside={aside} onSelect={() => open(0, [{ act, otherStepId: place.stepId }])}>
            {label}
          </MenuItem>
        ))}
      </MenuFrame>
    </DropdownMenu.Root>
  );
}
