import { useState } from "react";
import type { Dto } from "../../api/client";
import { Marked } from "../../ui/Marked";
import { count } from "../../ui/numbers";
import { WordsSheet } from "./board/WordsSheet";
import { Press } from "../../ui/Press";
import { TextButton } from "../../ui/TextButton";

const chip = "rounded-full border px-2 py-px";

/** What a person should know of how the line is read, with the other ways to write it one click away. */
export function Notice({
  notice,
  text,
  onTake,
  onAdd,
  reviewId,
  stepId,
}: {
  notice: Dto<"NoticeDto">;
  text: string;
  onTake: (text: string, databases: readonly number[] | null) => void;
  /** Adds what the line names, and no work here is, as a custom entry; null where one may not. */
  onAdd: (() => void) | null;
  reviewId: number;
  stepId: number;
}) {
  const [shown, setShown] = useState(false);
  const [words, setWords] = useState(false);
  const adds = notice.kind === "Variants" || notice.kind === "Gap";
  const at = text.slice(notice.start, notice.start + notice.length);
  return (
    <div className={`mb-1.5 text-[12.5px] text-quiet ${shown ? "w-full" : ""}`}>
      <p className="flex flex-wrap items-center gap-x-2 gap-y-1">
        <span>{notice.sentence}</span>
        {notice.ways.map((way, i) => {
          const readSo =
            i === 0 &&
            (notice.kind === "LooseWords" || notice.kind === "MixedOperators" || notice.kind === "LowerCaseNot");
          const taken = (way.text === text && way.databases === null) || readSo;
          return (
            <Press
              key={way.label}
              aria-pressed={taken}
              onClick={() => onTake(way.text, way.databases)}
              className={`${chip}
                ${taken ? "border-pine bg-mist text-ink" : "border-dashed border-edge hover:border-solid hover:border-ink"}`}
            >
              {way.label}{" "}
              <b className="font-semibold text-ink">
                {adds && "+"}
                {count(way.count)}
              </b>
            </Press>
          );
        })}
        {notice.kind === "Identifier" && notice.ways.length === 0 && onAdd && (
          <TextButton onClick={onAdd} className="font-semibold text-ink">
            Add it as a custom entry
          </TextButton>
        )}
        {notice.kind === "Wide" && (
          <Press
            onClick={() => setWords(true)}
            className={`${chip} border-dashed border-edge hover:border-solid hover:border-ink`}
          >
            see them all
          </Press>
        )}
        {notice.examples.length > 0 && (
          <TextButton aria-expanded={shown} onClick={() => setShown(!shown)}>
            {shown ? "hide examples" : "examples"}
          </TextButton>
        )}
      </p>
      {shown && (
        <ul className="mt-0.5 mb-1 border-l-2 border-line pl-3 font-serif text-[13px] text-ink">
          {notice.examples.map((e) => (
            <li key={e.text}>
              <Marked text={e} />
            </li>
          ))}
        </ul>
      )}
      {words && (
        <WordsSheet
          reviewId={reviewId}
          stepId={stepId}
          term={at}
          scope="about"
          onTake={(written) =>
            onTake(
              [
                text.slice(0, notice.start),
                written.includes(" OR ") ? `(${written})` : written,
                text.slice(notice.start + notice.length),
              ].join(""),
              null,
            )
          }
          close={() => setWords(false)}
        />
      )}
    </div>
  );
}
