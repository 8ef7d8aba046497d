/**
 * A day as it is read: 29 Nov 2026.
 * @param timeZone whose day it is; that of whoever looks when none is given
 */
export const dayOf = (at: string | number | Date, timeZone?: string): string =>
  new Date(at).toLocaleDateString("en-GB", {
    day: "numeric",
    month: "short",
    year: "numeric",
    ...(timeZone && { timeZone }),
  });
