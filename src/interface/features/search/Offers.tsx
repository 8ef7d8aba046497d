import { useEffect, useRef, useState, type ReactNode } from "react";

/** What the line offers: in one line that unfolds, so that a list stays where it is; all of it while one writes. */
export function Offers({ folded, children }: { folded: boolean; children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  const [open, setOpen] = useState(false);
  const [isLonger, setIsLonger] = useState(false);
  const isFolded = folded && !open;
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const measure = () => setIsLonger(element.scrollHeight > 40);
    const observer = new ResizeObserver(measure);
    observer.observe(element);
    measure();
    return () => observer.disconnect();
  }, [children]);
  return (
    <div className="flex items-start gap-3">
      <div
        ref={box}
        className={`flex min-w-0 flex-1 flex-wrap gap-x-6 ${isFolded ? "max-h-[27px] overflow-hidden" : ""}`}
      >
        {children}
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
