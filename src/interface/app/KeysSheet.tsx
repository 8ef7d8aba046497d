import { Sheet } from "../ui/Sheet";
import { keyList, useLetterKeys } from "../ui/keys";

/** The keys, and the switch for single letters. */
export function KeysSheet({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const [on, setOn] = useLetterKeys();
  return (
    <Sheet
      open={open}
      onOpenChange={onOpenChange}
      title="Keys"
      hint="Single-letter keys work only outside text fields."
    >
      <dl className="grid grid-cols-[90px_1fr] gap-y-1.5 text-[13px]">
        {keyList.map(([key, does]) => (
          <div key={key} className="contents">
            <dt>
              <kbd className="rounded border border-line bg-raised px-1.5 py-px text-[12px]">
                {key.length === 1
                  ? key.toUpperCase()
                  : key.replace(/^g (\w)$/, (_, l: string) => `G then ${l.toUpperCase()}`)}
              </kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <label className="mt-4 flex items-center gap-2 border-t border-line pt-3 text-[13px]">
        <input
          type="checkbox"
          checked={on}
          onChange={(e) => setOn(e.target.checked)}
          className="accent-[var(--pine)]"
        />
        Single letters act
      </label>
    </Sheet>
  );
}
