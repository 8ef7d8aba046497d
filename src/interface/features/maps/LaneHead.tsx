import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import type { Lane, LaneLook } from "./arrange";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { MenuFrame, MenuItem } from "../../ui/Menu";
import { Sheet } from "../../ui/Sheet";
import { count, works } from "../../ui/numbers";

/** The name of a lane at its left, with what can be done with it. */
export function LaneHead({
  lane,
  several,
  colour,
  width,
  onPick,
  onLook,
  onRename,
}: {
  lane: Lane;
  several: number;
  colour: string;
  width: number;
  onPick: (how: "only" | "more") => void;
  onLook: (look: LaneLook) => void;
  onRename: (name: string) => void;
}) {
  const [naming, setNaming] = useState<string | null>(null);
  return (
    <div
      data-lane={lane.label}
      className="absolute border-l-4 bg-paper/85 pr-1 pl-2"
      style={{ top: lane.y, height: lane.height, width, borderColor: colour }}
    >
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          className={`block w-full pt-0.5 text-left hover:underline ${lane.isFolded ? "" : "pt-1"}`}
          title={several > 0 ? `${works(several)} of these also belong to another lane` : undefined}
        >
          {lane.height < 60 ? (
            <span className={`text-[12px] leading-[1.25] ${lane.isFolded ? "line-clamp-1" : "line-clamp-3"}`}>
              <b className="font-semibold">{lane.label}</b> <span className="text-quiet">{count(lane.works)}</span>
            </span>
          ) : (
            <>
              <b className="line-clamp-3 text-[12.5px] leading-[1.2] font-semibold">{lane.label}</b>
              <span className="block text-[11.5px] text-quiet">{works(lane.works)}</span>
            </>
          )}
        </DropdownMenu.Trigger>
        <MenuFrame width={190}>
          <MenuItem onSelect={() => onPick("only")} aside={works(lane.works)}>
            Pick its works
          </MenuItem>
          <MenuItem onSelect={() => onPick("more")}>Add them to what is picked</MenuItem>
          <MenuItem onSelect={() => onLook(lane.isFolded ? "Open" : "Folded")}>
            {lane.isFolded ? "Unfold" : "Fold"}
          </MenuItem>
          <MenuItem onSelect={() => onLook("Hidden")}>Leave out of the picture</MenuItem>
          <MenuItem onSelect={() => setNaming(lane.label)}>Rename for the picture …</MenuItem>
        </MenuFrame>
      </DropdownMenu.Root>
      <Sheet open={naming !== null} onOpenChange={() => setNaming(null)} title="Name of the lane" width={400}>
        <form
          onSubmit={(e) => {
            e.preventDefault();
            onRename((naming ?? "").trim());
            setNaming(null);
          }}
        >
          <Field
            label="Name, in this picture only"
            value={naming ?? ""}
            maxLength={80}
            onChange={(e) => setNaming(e.target.value)}
            className="mb-4"
          />
          <Button type="submit" kind="primary">
            Rename
          </Button>
        </form>
      </Sheet>
    </div>
  );
}
