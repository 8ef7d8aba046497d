import { useRef } from "react";
import type { Dto } from "../../api/client";
import { Article, goWithin } from "../../set/work/Article";
import { extentOf } from "../../set/work/extent";
import { fileOf } from "../../set/work/useGather";
import { useReadable } from "../../set/work/useReadable";
import { Fault } from "../../ui/Fault";
import { useKeys } from "../../ui/keys";
import { FindIn } from "./FindIn";
import { ReaderFrame } from "./ReaderFrame";
import { ToolbarEnd, toolbar } from "./ToolbarEnd";
import { useFindInElement } from "./useFindInElement";

/** A text that is no PDF: its article in our own letters, with its figures and tables. */
export function MarkedReader({ reviewId, text }: { reviewId: number; text: Dto<"TextDetailDto"> }) {
  const readable = useReadable(reviewId, text.id);
  const room = useRef<HTMLDivElement>(null);
  const article = useRef<HTMLDivElement>(null);
  const findRef = useRef<HTMLInputElement>(null);
  const find = useFindInElement(article, readable.data?.html);
  const scroll = (by: number) => {
    room.current?.scrollBy({ top: by * room.current.clientHeight * 0.85 });
    return true;
  };
  useKeys({
    "/": () => {
      findRef.current?.focus();
      findRef.current?.select();
      return true;
    },
    j: () => scroll(1),
    k: () => scroll(-1),
  });
  const outline = (readable.data?.headings ?? []).map((h) => ({
    title: h.text,
    depth: Math.max(0, h.level - 2),
    go: () => goWithin(article.current, h.id),
  }));
  const missing = readable.data?.figuresMissing ?? 0;
  return (
    <ReaderFrame reviewId={reviewId} text={text} outline={outline}>
      {(record) => (
        <>
          <div role="toolbar" aria-label="Reading" className={toolbar}>
            <span className="text-[13px] whitespace-nowrap text-quiet">{extentOf(text)}</span>
            <FindIn
              inputRef={findRef}
              words={find.words}
              onWords={find.setWords}
              onNext={find.next}
              found={find.found}
            />
            <ToolbarEnd
              version={text.version}
              file={`${fileOf(reviewId, text.id)}?download=true`}
              fileName={text.fileName}
              record={record}
              reviewId={reviewId}
              textId={text.id}
            />
          </div>
          <div
            ref={room}
            tabIndex={0}
            role="region"
            aria-label="Article"
            className={`min-h-0 flex-1 overflow-y-auto bg-raised ${record.open ? "max-sm:hidden" : ""}`}
          >
            {readable.error ? (
              <div className="p-8">
                <Fault error={readable.error} again={() => void readable.refetch()} />
              </div>
            ) : readable.data ? (
              <>
                {missing > 0 && (
                  <p className="border-b border-line bg-soft px-6 py-1.5 text-[12.5px] text-quiet">
                    {missing === 1 ? "One figure" : `${missing} figures`} did not come with the text; the page it came
                    from may show {missing === 1 ? "it" : "them"}: {text.source}
                  </p>
                )}
                <Article ref={article} html={readable.data.html} className="mx-auto max-w-[68ch] px-6 py-6" />
              </>
            ) : (
              <div className="shape m-8 h-80" aria-busy="true" />
            )}
          </div>
        </>
      )}
    </ReaderFrame>
  );
}
