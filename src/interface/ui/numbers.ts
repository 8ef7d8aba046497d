const order = new Intl.PluralRules("en", { type: "ordinal" });
const whole = new Intl.NumberFormat("en");

/** 48112 → "48,112". */
export const count = (n: number): string => whole.format(n);

/**
 * The change from one count to the next: "−97 %", "+19", or nothing. Small gains are told as numbers, losses as shares; one that
 * leaves anything is never "−100 %".
 */
export function change(before: number, now: number): string {
  if (before === now) return "";
  if (now > before) return `+${count(now - before)}`;
  const share = Math.round((100 * (before - now)) / before);
  if (share === 100 && now > 0) return `−${Math.floor((1000 * (before - now)) / before) / 10} %`;
  return share < 1 ? `−${count(before - now)}` : `−${share} %`;
}

/** 1 → "1st", 12 → "12th", 23 → "23rd". */
export function ordinal(n: number): string {
  const ending = { one: "st", two: "nd", few: "rd", other: "th", zero: "th", many: "th" }[order.select(n)];
  return `${count(n)}${ending}`;
}

/** "1 work", "84 works". */
export const works = (n: number): string => `${count(n)} ${n === 1 ? "work" : "works"}`;

/** A moment as day and time in the reader's own zone. */
export const moment = (iso: string): string =>
  new Date(iso).toLocaleString("en-GB", {
    day: "numeric",
    month: "short",
    year: "numeric",
    hour: "2-digit",
    minute: "2-digit",
  });

/** How long ago a moment was, in words. */
export function ago(iso: string): string {
  const minutes = Math.round((Date.now() - new Date(iso).getTime()) / 60000);
  if (minutes < 1) return "just now";
  if (minutes < 60) return `${minutes} min ago`;
  if (minutes < 60 * 36) return `${Math.round(minutes / 60)} h ago`;
  return `${count(Math.round(minutes / 1440))} days ago`;
}

/** A share as a whole percentage: 0.124 → "12 %"; what rounds to nothing or all but is neither is "<1 %" or ">99 %". */
export const percent = (share: number): string =>
  share > 0 && share < 0.005 ? "<1 %" : share < 1 && share >= 0.995 ? ">99 %" : `${Math.round(100 * share)} %`;
