import { Slider } from "radix-ui";
import { useEffect, useState } from "react";
import { barButton } from "../../ui/Button";
import { Press } from "../../ui/Press";
import { works } from "../../ui/numbers";

const pause = 450;

/** Grows the set through time: only works up to a year are drawn. */
export function YearThrough({
  from,
  to,
  until,
  onUntil,
  shown,
}: {
  from: number;
  to: number;
  until: number | null;
  onUntil: (year: number | null) => void;
  shown: number;
}) {
  const [playing, setPlaying] = useState(false);
  const year = Math.min(to, Math.max(from, until ?? to));
  useEffect(() => {
    if (!playing) return;
    const timer = setTimeout(() => {
      if (year >= to) setPlaying(false);
      onUntil(year + 1 >= to ? null : year + 1);
      if (year + 1 >= to) setPlaying(false);
    }, pause);
    return () => clearTimeout(timer);
  }, [playing, year, to, onUntil]);
  // Whoever wants no motion goes from year to year by hand.
  const still = window.matchMedia("(prefers-reduced-motion: reduce)").matches;
  return (
    <div className="flex shrink-0 items-center gap-3 border-t border-line px-[18px] py-1 text-[12px] text-quiet">
      <span className="w-36 whitespace-nowrap">{until === null ? "all years" : `up to ${year}: ${works(shown)}`}</span>
      <Slider.Root
        min={from}
        max={to}
        step={1}
        value={[year]}
        onValueChange={([v]) => onUntil(v === undefined || v >= to ? null : v)}
        className="relative flex h-5 flex-1 touch-none items-center select-none"
      >
        <Slider.Track className="h-[3px] w-full rounded bg-line">
          <Slider.Range className="absolute h-[3px] rounded bg-measure" />
        </Slider.Track>
        <Slider.Thumb
          aria-label="Works up to the year"
          className="block h-4 w-2 rounded-sm border border-raised bg-pine"
        />
      </Slider.Root>
      {!still && (
        <Press
          className={barButton}
          onClick={() => {
            if (!playing && until === null) onUntil(from);
            setPlaying(!playing);
          }}
        >
          {playing ? "Stop" : "Play"}
        </Press>
      )}
    </div>
  );
}
