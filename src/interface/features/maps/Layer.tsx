import type { ComponentProps } from "react";

/** A sheet of the picture that is drawn by itself: what changes on one leaves the others as they are. */
export const Layer = (more: ComponentProps<"svg">) => (
  <svg className="absolute inset-0 h-full w-full overflow-visible will-change-transform" aria-hidden="true" {...more} />
);
