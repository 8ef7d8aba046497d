import { Link } from "react-router";
import { useText } from "../../set/work/useGather";
import { Fault } from "../../ui/Fault";
import { MarkedReader } from "./MarkedReader";
import { PdfReader } from "./PdfReader";
import { useOpened } from "./useReading";

/** Read: the text with its outline at the left and its record at the right. */
export default function ReadPage({ reviewId, textId }: { reviewId: number; textId: number }) {
  const text = useText(reviewId, textId);
  useOpened(reviewId, textId);
  if (text.error)
    return (
      <div className="p-8">
        <Fault error={text.error} />
        <Link to={`/r/${reviewId}/gather`} className="mt-4 inline-block underline underline-offset-2">
          To Gather
        </Link>
      </div>
    );
  if (!text.data) return <div className="shape m-8 h-80" aria-busy="true" />;
  return text.data.format === "Pdf" ? (
    <PdfReader reviewId={reviewId} text={text.data} />
  ) : (
    <MarkedReader reviewId={reviewId} text={text.data} />
  );
}
