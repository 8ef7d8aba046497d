import type { Dto } from "../../api/client";
import { reasonWord, statusWord } from "../../set/loan/words";
import { moment } from "../../ui/numbers";

type Event = Dto<"LoanEventDto">;

/** What happened to a request, in the order it became known. */
export function LoanEvents({ loan: l }: { loan: Dto<"LoanDto"> }) {
  return (
    <details className="mt-1.5 text-[12px] text-quiet">
      <summary className="cursor-pointer">Request {l.number}: what happened</summary>
      <ol className="mt-1 space-y-0.5">
        {l.events.map((e, i) => (
          <li key={i} className="grid grid-cols-[118px_minmax(0,1fr)] gap-2">
            <span>{moment(e.at)}</span>
            <span className="text-ink">
              {sentence(e, l)}
              {e.isWaiting && <span className="text-quiet"> (not sent to the desk yet)</span>}
              {!e.isWaiting && e.trouble && <span className="text-futuretext"> {e.trouble}</span>}
            </span>
          </li>
        ))}
      </ol>
    </details>
  );
}

function sentence(e: Event, l: Dto<"LoanDto">): string {
  switch (e.kind) {
    case "Asked":
      return `${l.isMine ? "You" : l.by} asked`;
    case "Sent":
      return "The desk took the request";
    case "Refused":
      return "The desk refused the request";
    case "Withdrawn":
      return "Withdrawn before it was sent";
    case "CancelAsked":
      return "Cancelling asked for";
    case "Received":
      return l.delivery === "Got" || l.delivery === "Doubtful" ? "The copy was added" : "It arrived";
    case "Returned":
      return "Sent back";
    case "StatusAsked":
      return "The desk was asked for an update";
    case "Told":
      return told(e);
    default:
      return "";
  }
}

function told({ message: m }: Event): string {
  if (!m) return "";
  if (m.reason === "CancelResponse" && m.answer === false) return "The desk: cannot be cancelled any more";
  const status = m.status ? statusWord(m.status) : "a note";
  return `The desk: ${status}${m.why ? `, ${reasonWord(m.why)}` : ""}${m.note ? ` — ${m.note}` : ""}`;
}
