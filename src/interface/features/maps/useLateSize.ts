import type { RefObject } from "react";
import { useLate } from "../../set/useSet";
import { useSize } from "../../ui/useSize";

/** The size of an element once it has come to rest, so that a window being drawn larger asks for one map and not fifty. */
export const useLateSize = (of: RefObject<HTMLElement | null>, ms: number) => {
  const size = useSize(of);
  return useLate(size, size === null ? 0 : ms);
};
