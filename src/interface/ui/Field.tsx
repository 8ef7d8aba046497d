import type { InputHTMLAttributes } from "react";
import { Labelled } from "./Labelled";

/** A labelled line of text, with a hint or a fault under it. */
export function Field({
  label,
  hint,
  fault,
  className,
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & { label: string; hint?: string; fault?: string | null }) {
  return (
    <Labelled label={label} hint={hint} fault={fault} className={className}>
      {(tied) => (
        <input
          className="h-9 w-full rounded-md border border-edge bg-raised px-2.5 text-[14px] outline-offset-0"
          {...tied}
          {...rest}
        />
      )}
    </Labelled>
  );
}
