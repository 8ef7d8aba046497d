import { Popover } from "radix-ui";
import { useState } from "react";
import { PopOver } from "../../ui/PopOver";
import { Button, barButton } from "../../ui/Button";
import { count, works } from "../../ui/numbers";
import type { Decide } from "./useDecisions";
import { Input } from "../../ui/Input";

/** Decides on the first N of the list, or on all of it, in one act that one undo takes back. */
export function KeepFirst({ total, decide }: { total: number; decide: Decide }) {
  const [open, setOpen] = useState(false);
  const [n, setN] = useState("20");
  const [reason, setReason] = useState("");
  const first = Math.min(Number(n) || 0, total);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger disabled={total === 0} className={barButton}>
        Keep the first …
      </Popover.Trigger>
      <PopOver label="Decide on many" width={300} align="end">
        <form
          onSubmit={(e) => {
            e.preventDefault();
            decide.first("Keep", first);
            setOpen(false);
          }}
        >
          <label className="flex items-center gap-2 text-[13px]" htmlFor="first-n">
            The first
            <Input
              id="first-n"
              type="number"
              min={1}
              max={total}
              value={n}
              onChange={(e) => setN(e.target.value)}
              className="h-8 w-20 text-right"
            />
            of {count(total)}
          </label>
          <div className="mt-3 flex gap-2">
            <Button type="submit" kind="primary" disabled={first < 1}>
              Keep {works(first)}
            </Button>
            <Button
              onClick={() => {
                decide.first("Keep", null);
                setOpen(false);
              }}
            >
              Keep all
            </Button>
          </div>
        </form>
        <form
          className="mt-3 border-t border-line pt-3"
          onSubmit={(e) => {
            e.preventDefault();
            decide.first("SetAside", first, reason);
            setOpen(false);
          }}
        >
          <label className="mb-1 block text-[12.5px] text-quiet" htmlFor="first-reason">
            Or set them aside, because
          </label>
          <div className="flex gap-2">
            <Input
              id="first-reason"
              value={reason}
              maxLength={120}
              onChange={(e) => setReason(e.target.value)}
              className="h-8 min-w-0 flex-1"
            />
            <Button type="submit" disabled={reason.trim() === "" || first < 1}>
              Set aside
            </Button>
          </div>
        </form>
      </PopOver>
    </Popover.Root>
  );
}
