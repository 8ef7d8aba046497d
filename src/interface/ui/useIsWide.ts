import { useSyncExternalStore } from "react";

function media(query: string): () => boolean {
  const list = window.matchMedia(query);
  const listen = (changed: () => void) => {
    list.addEventListener("change", changed);
    return () => list.removeEventListener("change", changed);
  };
  return () => useSyncExternalStore(listen, () => list.matches);
}

/** Whether list and pane stand side by side with room for both. */
export const useIsWide = media("(min-width: 1000px)");

/** Whether there is room for one column only (below the style sheet's breakpoint sm). */
export const useIsNarrow = media("(max-width: 759.9px)");
