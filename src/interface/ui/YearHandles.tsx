import { Slider } from "radix-ui";
import { useRef } from "react";

/** Two handles over a histogram of years, moved by mouse or arrow keys. */
export function YearHandles({
  first,
  last,
  range,
  label,
  names = ["First year", "Last year"],
  colour,
  className,
  onChange,
  onCommit,
}: {
  first: number;
  last: number;
  range: [number, number];
  label: string;
  names?: [string, string];
  colour: string;
  className: string;
  onChange: (range: [number, number]) => void;
  /** Told when the handles come to rest, and whether the pointer moved them. */
  onCommit: (range: [number, number], byPointer: boolean) => void;
}) {
  const byPointer = useRef(false);
  const pair = (v: number[]): [number, number] => [v[0] ?? first, v[1] ?? last];
  return (
    <Slider.Root
      min={first}
      max={last}
      step={1}
      value={range}
      onPointerDown={() => (byPointer.current = true)}
      onKeyDown={() => (byPointer.current = false)}
      onValueChange={(v) => onChange(pair(v))}
      onValueCommit={(v) => onCommit(pair(v), byPointer.current)}
      aria-label={label}
      className={`flex touch-none items-center select-none ${className}`}
    >
      <Slider.Track className="h-full w-full cursor-ew-resize" />
      {names.map((name) => (
        <Slider.Thumb
          key={name}
          aria-label={name}
          style={{ background: colour }}
          className="block h-[24px] w-[7px] cursor-ew-resize rounded-sm border border-raised"
        />
      ))}
    </Slider.Root>
  );
}
