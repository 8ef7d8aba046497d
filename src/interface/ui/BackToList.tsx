import { useIsNarrow } from "./useIsWide";

/** Where a card stands in place of its list (one column only): the way back. */
export function BackToList({ onBack }: { onBack: () => void }) {
  if (!useIsNarrow()) return null;
  return (
    <button
      type="button"
      className="w-full shrink-0 border-b border-line px-3 py-2 text-left text-[13px] font-semibold text-quiet"
      onClick={onBack}
    >
      ‹ Back to the list
    </button>
  );
}
