import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { MenuFrame, MenuItem, MenuLabel } from "../../ui/Menu";
import { barButton } from "../../ui/Button";
import { count, works } from "../../ui/numbers";
import { OutlineSheet } from "../outline/OutlineSheet";
import { useOpenSet } from "../useOpenSet";
import type { Place, StepAct } from "../useSet";

/** More seeds than this a trail does not start from. */
const most = 5_000;

/** The main line is drawn of no more works than this. */
const mostOutlined = 20_000;

const ways: [string, string, StepAct][] = [
  ["Both ways", "past and future", { kind: "Trail", seeds: null, way: "Both" }],
  ["What they cite", "past", { kind: "Trail", seeds: null, way: "Backward" }],
  ["What cites them", "future", { kind: "Trail", seeds: null, way: "Forward" }],
  ["Their neighbours", "in common", { kind: "Neighbours", seeds: null, kinds: null }],
];

/** Follows trails from every work of the list, or asks for their neighbours. */
export function FollowMenu({ place, total }: { place: Place; total: number }) {
  const open = useOpenSet(place);
  const [isOutlined, setOutlined] = useState(false);
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        disabled={total === 0 || total > mostOutlined}
        title={
          total > mostOutlined
            ? `Citations are followed from at most ${count(mostOutlined)} works: narrow the list first`
            : undefined
        }
        className={barButton}
      >
        Follow
      </DropdownMenu.Trigger>
      <MenuFrame width={230} align="end">
        <MenuLabel>
          {total > most ? `Trails start from at most ${count(most)} works` : `${works(total)} as seeds`}
        </MenuLabel>
        {total <= most &&
          ways.map(([label, aside, act]) => (
            <MenuItem key={label} aside={aside} onSelect={() => open(0, [{ act, otherStepId: place.stepId }])}>
              {label}
            </MenuItem>
          ))}
        <MenuLabel>Within the list</MenuLabel>
        <MenuItem aside="main line, sleeping papers" onSelect={() => setOutlined(true)}>
          What its citations show
        </MenuItem>
      </MenuFrame>
      {isOutlined && <OutlineSheet place={place} close={() => setOutlined(false)} />}
    </DropdownMenu.Root>
  );
}
