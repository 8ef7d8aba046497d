import { useId, type InputHTMLAttributes } from "react";

/** A labelled line of text, with a hint or a fault under it. */
export function Field({
  label,
  hint,
  fault,
  className = "",
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & { label: string; hint?: string; fault?: string | null }) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className="mb-1 block text-[12.5px] font-semibold">
        {label}
      </label>
      <input
        id={id}
        aria-describedby={hint || fault ? `${id}-more` : undefined}
        aria-invalid={fault ? true : undefined}
        className="h-9 w-full rounded-md border border-edge bg-raised px-2.5 text-[14px] outline-offset-0"
        {...rest}
      />
      {(hint ?? fault) && (
        <p id={`${id}-more`} className={`mt-1 text-[12px] ${fault ? "text-aside" : "text-quiet"}`}>
          {fault ?? hint}
        </p>
      )}
    </div>
  );
}
