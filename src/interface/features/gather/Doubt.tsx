import { lazy, Suspense } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Article } from "../../set/work/Article";
import { fileOf, useText } from "../../set/work/useGather";
import { useReadable } from "../../set/work/useReadable";
import { Key } from "../../ui/Key";

const PagePicture = lazy(() => import("../../ui/pdf/PagePicture"));

type Answer = NonNullable<Dto<"SettleAnswer">>;

/** What came, against the record; one key settles it. */
export function Doubt({
  reviewId,
  textId,
  settle,
}: {
  reviewId: number;
  textId: number;
  settle: (answer: Answer) => void;
}) {
  const text = useText(reviewId, textId);
  if (text.error) return <Fault error={text.error} />;
  if (!text.data) return <div className="shape h-60 w-full" aria-busy="true" />;
  return (
    <>
      <h2 className="font-serif text-[17px] font-semibold">Is this the work?</h2>
      <p className="mb-2 text-[12.5px] text-quiet">{text.data.sentence} It counts as gathered only when you say so.</p>
      <table className="mb-3 w-full table-fixed text-[12.5px]">
        <thead className="text-[11.5px] text-faint">
          <tr>
            <th className="w-[52px]" />
            <th className="text-left font-normal">record</th>
            <th className="text-left font-normal">document</th>
          </tr>
        </thead>
        <tbody>
          {text.data.checks.map((c) => (
            <tr key={c.name} className="align-top">
              <th className="py-0.5 pr-2 text-left font-normal text-quiet">{c.name}</th>
              <td className="py-0.5 pr-2 break-words">{c.record}</td>
              <td
                className={`py-0.5 break-words ${c.agrees === true ? "text-pine" : c.agrees === false ? "text-futuretext" : "text-quiet"}`}
              >
                {c.document}
                <span className="sr-only">
                  {c.agrees === true ? ", agrees" : c.agrees === false ? ", differs" : ", not said"}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {text.data.format === "Pdf" ? (
        <Suspense fallback={<div className="shape h-60 w-full" />}>
          <PagePicture file={fileOf(reviewId, textId)} label={`First page of what came from ${text.data.source}`} />
        </Suspense>
      ) : (
        <Beginning reviewId={reviewId} textId={textId} />
      )}
      <div className="sticky bottom-0 flex flex-wrap gap-2 bg-paper py-2.5">
        <Button kind="primary" onClick={() => settle("OtherVersion")}>
          Another version <Key k="V" />
        </Button>
        <Button onClick={() => settle("This")}>
          Yes, this is the work <Key k="Y" />
        </Button>
        <Button onClick={() => settle("Not")}>
          No, it is another <Key k="N" />
        </Button>
      </div>
    </>
  );
}

/** What came, where it has no pages: it can be scrolled through. */
function Beginning({ reviewId, textId }: { reviewId: number; textId: number }) {
  const readable = useReadable(reviewId, textId);
  if (readable.error) return <Fault error={readable.error} />;
  if (!readable.data) return <div className="shape h-60 w-full" aria-busy="true" />;
  return (
    <div
      tabIndex={0}
      role="region"
      aria-label="What came"
      className="max-h-[420px] overflow-y-auto border border-line bg-raised px-3 py-2"
    >
      <Article html={readable.data.html} className="text-[13px]" />
    </div>
  );
}
