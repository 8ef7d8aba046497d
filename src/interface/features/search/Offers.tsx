import { useEffect, useRef, useState, type ReactNode } from "react";

/** What the line offers: in one line that unfolds, so that a list stays where it is; all of it while one writes. */
export function Offers({ folded, children }: { folded: boolean; children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  const [open, setOpen] = useState(false);
  const [isLonger, setIsLonger] = useState(false);
  const isFolded = folded && !open;
  // Measured when its size changes, never because it was drawn: a state set after each letter of the line would make
  // React give up on the fiftieth letter of a quick writer and lose it.
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const observer = new ResizeObserver(() => setIsLonger(element.offsetHeight > 40));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return (
    <div className="flex items-start gap-3">
      <div className={`min-w-0 flex-1 ${isFolded ? "max-h-[27px] overflow-hidden" : ""}`}>
        <div ref={box} className="flex flex-wrap gap-x-6">
          {children}
        </div>
      </div>
      {folded && isLonger && (
        <button
          type="button"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
          className="mt-0.5 text-[12.5px] whitespace-nowrap text-quiet underline decoration-line underline-offset-2 hover:decoration-ink"
        >
          {open ? "fewer offers" : "all offers"}
        </button>
      )}
    </div>
  );
}
