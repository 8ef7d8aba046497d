import { useState } from "react";
import { Button } from "../../ui/Button";
import { Sheet } from "../../ui/Sheet";
import { Press } from "../../ui/Press";
import { Input } from "../../ui/Input";

const usual = [
  "the words mean something else",
  "not a study of its own",
  "no comparison with darkness",
  "another kind of organism",
  "no outcome that we ask for",
  "the same study as another work",
];

/** Asks why a work is set aside; the reasons used last come first. Number keys choose. */
export function AsideSheet({
  open,
  close,
  reviewId,
  onReason,
}: {
  open: boolean;
  close: () => void;
  reviewId: number;
  onReason: (reason: string) => void;
}) {
  const key = `zendle.reasons.${reviewId}`;
  const [own, setOwn] = useState("");
  const used = JSON.parse(localStorage.getItem(key) ?? "[]") as string[];
  const reasons = [...new Set([...used, ...usual])].slice(0, 8);
  const choose = (reason: string) => {
    localStorage.setItem(key, JSON.stringify([reason, ...used.filter((r) => r !== reason)].slice(0, 8)));
    onReason(reason);
    close();
  };
  return (
    <Sheet open={open} onOpenChange={close} title="Set aside, because …" width={440}>
      <ul
        onKeyDown={(e) => {
          const reason = reasons[Number(e.key) - 1];
          if (reason) choose(reason);
        }}
      >
        {reasons.map((reason, i) => (
          <li key={reason}>
            <Press
              onClick={() => choose(reason)}
              className="flex w-full items-baseline gap-3 rounded-md px-2 py-1 text-left text-[14px] hover:bg-mist"
            >
              <kbd className="w-5 rounded border border-line text-center text-[12px] text-quiet">{i + 1}</kbd>
              {reason}
            </Press>
          </li>
        ))}
      </ul>
      <form
        className="mt-3 flex gap-2 border-t border-line pt-3"
        onSubmit={(e) => {
          e.preventDefault();
          if (own.trim() !== "") choose(own.trim());
        }}
      >
        <Input
          aria-label="Another reason"
          placeholder="Another reason"
          value={own}
          maxLength={120}
          onChange={(e) => setOwn(e.target.value)}
          className="h-8 min-w-0 flex-1"
        />
        <Button type="submit" disabled={own.trim() === ""}>
          Set aside
        </Button>
      </form>
    </Sheet>
  );
}
