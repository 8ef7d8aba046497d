import { useRef, useState, type ReactNode } from "react";
import { useSize } from "../../ui/useSize";
import { TextButton } from "../../ui/TextButton";

const oneLine = 40;

/** What the line offers: in one line that unfolds, so that a list stays where it is; all of it while one writes. */
export function Offers({ folded, children }: { folded: boolean; children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  const [open, setOpen] = useState(false);
  const isLonger = (useSize(box)?.height ?? 0) > oneLine;
  const isFolded = folded && !open;
  return (
    <div className="flex items-start gap-3">
      <div className={`min-w-0 flex-1 ${isFolded ? "max-h-[27px] overflow-hidden" : ""}`}>
        <div ref={box} className="flex flex-wrap gap-x-6">
          {children}
        </div>
      </div>
      {folded && isLonger && (
        <TextButton
          aria-expanded={open}
          onClick={() => setOpen(!open)}
          className="mt-0.5 text-[12.5px] whitespace-nowrap text-quiet"
        >
          {open ? "fewer offers" : "all offers"}
        </TextButton>
      )}
    </div>
  );
}
