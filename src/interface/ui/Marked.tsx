import type { ReactNode } from "react";
import type { Dto } from "../api/client";

/** Text with the words of the question marked by the underline of their concept. */
export function Marked({ text, cut }: { text: Dto<"MarkedTextDto">; cut?: number }) {
  const parts: ReactNode[] = [];
  let at = 0;
  const whole = cut && text.text.length > cut ? text.text.slice(0, cut) + "…" : text.text;
  for (const mark of text.marks) {
    if (mark.start + mark.length > whole.length) break;
    if (mark.start > at) parts.push(whole.slice(at, mark.start));
    parts.push(
      <mark key={mark.start} className={`concept-${mark.concept}`}>
        {whole.slice(mark.start, mark.start + mark.length)}
      </mark>,
    );
    at = mark.start + mark.length;
  }
  parts.push(whole.slice(at));
  return <>{parts}</>;
}
