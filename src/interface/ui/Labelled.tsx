import { useId, type ReactNode } from "react";

/** A label above what is written or chosen, with a hint or a fault under it. */
export function Labelled({
  label,
  hint,
  fault,
  className = "",
  children,
}: {
  label: string;
  hint?: string | undefined;
  fault?: string | null | undefined;
  className?: string | undefined;
  /** The control, given what ties it to its label and to what stands under it. */
  children: (tied: {
    id: string;
    "aria-describedby": string | undefined;
    "aria-invalid": true | undefined;
  }) => ReactNode;
}) {
  const id = useId();
  return (
    <div className={className}>
      <label htmlFor={id} className="mb-1 block text-[12.5px] font-semibold">
        {label}
      </label>
      {children({
        id,
        "aria-describedby": hint || fault ? `${id}-more` : undefined,
        "aria-invalid": fault ? true : undefined,
      })}
      {(hint ?? fault) && (
        <p id={`${id}-more`} className={`mt-1 text-[12px] ${fault ? "text-aside" : "text-quiet"}`}>
          {fault ?? hint}
        </p>
      )}
    </div>
  );
}
