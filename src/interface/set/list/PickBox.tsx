/** The box that picks a work of a list; keys pick by Space. */
export function PickBox({
  title,
  picked,
  onPick,
  className,
}: {
  title: string;
  picked: boolean;
  onPick: () => void;
  className: string;
}) {
  return (
    <input
      type="checkbox"
      tabIndex={-1}
      checked={picked}
      onChange={onPick}
      onClick={(e) => e.stopPropagation()}
      aria-label={`Pick ${title}`}
      className={`h-3.5 w-3.5 accent-[var(--pine)] ${className}`}
    />
  );
}
