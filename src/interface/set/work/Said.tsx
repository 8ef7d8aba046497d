import { useState } from "react";
import { Link } from "react-router";
import type { Dto } from "../../api/client";
import { Marked } from "../../ui/Marked";
import { TextButton } from "../../ui/TextButton";
import { count } from "../../ui/numbers";
import { useSaidOfSeeds, useSaidOfWork } from "../useSaid";
import type { Place } from "../useSet";
import { Part } from "./Part";

/** How many texts are shown before the rest is counted. */
const first = 6;

/** What the text of a work says of the seeds of the trail, and what other gathered texts say of the work. */
export function Said({ place, work }: { place: Place; work: Dto<"WorkDto"> }) {
  const ofSeeds = useSaidOfSeeds(place.reviewId, place.stepId, place.stepId !== 0).data;
  const own = ofSeeds?.texts.find((t) => t.workId === work.id);
  const others = useSaidOfWork(place.reviewId, work.id).data;
  const [all, setAll] = useState(false);
  return (
    <>
      {own && (
        <Part title="What it says of the seeds">
          <Sentences reviewId={place.reviewId} text={own} />
        </Part>
      )}
      {others && others.total > 0 && (
        <Part title={`What gathered texts say of it (${count(others.total)})`}>
          {others.texts.slice(0, all ? undefined : first).map((t) => (
            <div key={t.workId} className="mt-1.5 first:mt-0">
              <p className="font-semibold">{t.name}</p>
              <Sentences reviewId={place.reviewId} text={t} />
            </div>
          ))}
          {!all && others.texts.length > first && (
            <TextButton className="mt-1 text-quiet" onClick={() => setAll(true)}>
              show {count(others.texts.length - first)} more texts
            </TextButton>
          )}
        </Part>
      )}
    </>
  );
}

function Sentences({ reviewId, text }: { reviewId: number; text: Dto<"SaidTextDto"> }) {
  return (
    <ul>
      {text.sentences.map((s, i) => (
        <li key={i} className="mt-1 font-serif text-[13.5px] leading-[1.4]">
          <Marked text={s.text} />{" "}
          <Link
            to={`/r/${reviewId}/read/${text.textId}?page=${s.page}`}
            className="font-sans text-[12px] text-quiet underline decoration-line underline-offset-2"
          >
            p. {s.page}
          </Link>
        </li>
      ))}
      {text.total > text.sentences.length && (
        <li className="mt-1 text-quiet">and {count(text.total - text.sentences.length)} more sentences in the text</li>
      )}
    </ul>
  );
}
