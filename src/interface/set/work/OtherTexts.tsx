import { Marked } from "../../ui/Marked";
import type { Dto } from "../../api/client";

type Work = Dto<"WorkDto">;

/** Titles that the records have beside the work's own: translated, alternative, as another database gives it. */
export function OtherTitles({ work }: { work: Work }) {
  if (work.otherTitles.length === 0) return null;
  return (
    <p data-field="other-titles" className="mt-0.5 font-serif text-[13px] leading-snug text-quiet">
      Also:{" "}
      {work.otherTitles.map((t, i) => (
        <span key={t.text}>
          {i > 0 && " · "}
          <i>
            <Marked text={t} />
          </i>
        </span>
      ))}
    </p>
  );
}

/** Abstracts in other languages; one that holds the words looked for is open when the abstract above does not. */
export function OtherAbstracts({ work }: { work: Work }) {
  return work.otherAbstracts.map((a) => (
    <details
      key={`${String(work.id)} ${a.text.text}`}
      data-field="other-abstract"
      className="mt-2"
      open={a.text.marks.length > 0 && work.abstract.marks.length === 0}
    >
      <summary className="cursor-pointer text-[12.5px] text-quiet">
        {a.language ? `Abstract in ${a.language}` : "Another abstract"}
        {a.text.marks.length > 0 && ` · ${String(a.text.marks.length)} of the words looked for`}
      </summary>
      <p className="mt-1 font-serif text-[15px] leading-[1.5]">
        <Marked text={a.text} />
      </p>
    </details>
  ));
}
