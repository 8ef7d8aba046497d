import { useState } from "react";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";
import { usuallyNamed, type Exports, type PictureFormat } from "./useExports";

const [least, most] = [600, 6_000];
const formats: PictureFormat[] = ["SVG", "PNG", "PDF"];

/** How a picture of the map is to be: how wide, and whose names stand on it. */
export function PictureSheet({
  exports,
  width,
  picked,
  close,
}: {
  exports: Exports;
  /** What the picture on the screen would be wide, in pixels. */
  width: number;
  /** How many works are picked. */
  picked: number;
  close: () => void;
}) {
  const [wide, setWide] = useState(String(Math.round(width)));
  const [labels, setLabels] = useState(String(usuallyNamed));
  const [namesPicked, setNamesPicked] = useState(picked > 0);
  const [chosen, named] = [Number(wide), Number(labels)];
  const faults = {
    wide: chosen >= least && chosen <= most ? null : `Between ${least} and ${most} pixels.`,
    labels: Number.isInteger(named) && named >= 0 && named <= 500 ? null : "Between 0 and 500.",
  };
  return (
    <Sheet open onOpenChange={close} title="A picture of the map" hint="Light on white, with a caption, for print.">
      <div className="mb-3 grid grid-cols-2 gap-3">
        <Field
          label="Width in pixels"
          inputMode="numeric"
          value={wide}
          fault={faults.wide}
          onChange={(e) => setWide(e.target.value)}
        />
        <Field
          label="Name the most important works"
          hint="where there is room"
          inputMode="numeric"
          value={labels}
          fault={faults.labels}
          onChange={(e) => setLabels(e.target.value)}
        />
      </div>
      {picked > 0 && (
        <label className="mb-3 flex items-center gap-2 text-[13px]">
          <input
            type="checkbox"
            checked={namesPicked}
            onChange={(e) => setNamesPicked(e.target.checked)}
            className="accent-[var(--pine)]"
          />
          Name the {picked} picked works first
        </label>
      )}
      <div className="flex gap-2">
        {formats.map((format) => (
          <Button
            key={format}
            kind={format === "SVG" ? "primary" : "plain"}
            disabled={faults.wide !== null || faults.labels !== null}
            onClick={() => {
              close();
              exports.picture(format, {
                width: chosen === Math.round(width) ? null : chosen,
                labels: named,
                namesPicked,
              });
            }}
          >
            {format}
          </Button>
        ))}
      </div>
      <p className="mt-3 text-[12.5px] text-quiet">
        A PNG has twice as many pixels each way. For a PDF your browser&apos;s print dialog opens; save it as PDF there.
      </p>
    </Sheet>
  );
}
