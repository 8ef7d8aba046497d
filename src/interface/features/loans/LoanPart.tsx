import { useState } from "react";
import type { Dto } from "../../api/client";
import { useLoanAct, useLoans } from "../../set/loan/useLoans";
import { money, reasonWord, statusWord } from "../../set/loan/words";
import { Button } from "../../ui/Button";
import { dayOf } from "../../ui/days";
import { LoanEvents } from "./LoanEvents";
import { LoanSheet, type Again } from "./LoanSheet";

type Loan = Dto<"LoanDto">;

/** What was asked of other libraries for one work, how it stands, and what can be done about it. */
export function LoanPart({ reviewId, workId, mayAsk }: { reviewId: number; workId: number; mayAsk: boolean }) {
  const loans = useLoans(reviewId).data;
  const [asking, setAsking] = useState<Again | "new" | null>(null);
  if (!loans) return null;
  const mine = loans.loans.filter((l) => l.workId === workId);
  const last = mine[0];
  const canAsk = mayAsk && loans.hasDesks && (last === undefined || last.state.isVain);
  if (!canAsk && mine.length === 0) return null;
  return (
    <section aria-label="Interlibrary loan" className="mb-3">
      {mine.length > 0 && (
        <ol className="space-y-3">
          {mine.map((l) => (
            <li
              key={l.id}
              className={`border-l-[3px] pl-3 ${l.state.isVain ? "border-edge" : "border-kept"}`}
              data-loan={l.state.status}
            >
              <LoanCard reviewId={reviewId} loan={l} askAgain={l === last ? setAsking : null} />
            </li>
          ))}
        </ol>
      )}
      {canAsk && (
        <Button className={mine.length > 0 ? "mt-2" : ""} onClick={() => setAsking("new")}>
          {mine.length > 0 ? "Ask elsewhere" : "Ask another library"}
        </Button>
      )}
      {asking !== null && (
        <LoanSheet
          reviewId={reviewId}
          works={[workId]}
          again={asking === "new" ? null : asking}
          close={() => setAsking(null)}
        />
      )}
    </section>
  );
}

function LoanCard({
  reviewId,
  loan: l,
  askAgain,
}: {
  reviewId: number;
  loan: Loan;
  askAgain: ((again: Again) => void) | null;
}) {
  const act = useLoanAct(reviewId);
  const { state } = l;
  const does = (what: NonNullable<Dto<"LoanAct">>) => () => act.mutate({ id: l.id, act: what });
  const waits = l.events.some((e) => e.isWaiting);
  return (
    <>
      <p>
        <b className="font-semibold">{headOf(l)}</b>
        <span className="text-[12.5px] text-quiet"> · {l.desk}</span>
      </p>
      <p className="text-[12.5px] text-quiet">
        {[
          state.note && `“${state.note}”`,
          l.trouble && `${l.trouble} It is tried again.`,
          state.isCancelAsked && "Cancelling was asked for; the desk has not answered yet.",
          state.isCancelDenied && state.isOpen && "It can no longer be cancelled.",
          state.cost && `Cost ${money(state.cost.amount, state.cost.currency)}.`,
          !l.isMine && `Asked by ${l.by}.`,
        ]
          .filter(Boolean)
          .join(" ")}
      </p>
      <Delivery loan={l} />
      {l.isMine && (
        <div className="mt-1.5 flex flex-wrap gap-2">
          {state.status === "RetryPossible" && askAgain && (
            <Button
              kind="primary"
              onClick={() => askAgain({ previous: l.id, desk: l.deskId, cost: state.offer?.amount ?? null })}
            >
              {state.offer ? `Ask again for ${money(state.offer.amount, state.offer.currency)}` : "Ask again"}
            </Button>
          )}
          {l.delivery === "Failed" && <Button onClick={does("Fetch")}>Fetch it again</Button>}
          {state.isOpen && state.status !== "Unsent" && !waits && (
            <Button onClick={does("AskStatus")}>Ask for an update</Button>
          )}
          {state.isOpen && !state.isCancelAsked && !state.isCancelDenied && (
            <Button onClick={does("Cancel")}>Cancel the request</Button>
          )}
          {(state.isLent || (state.status === "CopyCompleted" && l.delivery !== "Got")) && !state.isReceived && (
            <Button onClick={does("Received")}>I have it</Button>
          )}
          {state.isLent && !state.isReturned && <Button onClick={does("Returned")}>I sent it back</Button>}
        </div>
      )}
      <LoanEvents loan={l} />
    </>
  );
}

function headOf({ state, delivery }: Loan): string {
  const word = statusWord(state.status);
  const head = word.charAt(0).toUpperCase() + word.slice(1);
  if (state.isReturned && state.isLent) return "On its way back";
  if (delivery === "Waiting") return "The copy is being fetched";
  if (delivery === "Got") return "Copy received";
  if (state.isLent && state.dueOn) return `${head} until ${dayOf(state.dueOn)}`;
  if (state.isOpen && state.expectedOn) return `${head}, expected ${dayOf(state.expectedOn)}`;
  if (state.why) return `${head}: ${reasonWord(state.why)}`;
  return head;
}

/** What a person has to do for a copy that Zendle did not take in by itself. */
function Delivery({ loan: l }: { loan: Loan }) {
  if (l.state.status !== "CopyCompleted") return null;
  switch (l.delivery) {
    case "Failed":
      return <p className="text-[12.5px] text-futuretext">{l.deliverySentence}</p>;
    case "Elsewhere":
      return (
        <p className="text-[12.5px]">
          The desk names an address at another host, which Zendle does not open by itself:{" "}
          {(l.state.addresses ?? []).map((a) => (
            <a
              key={a}
              href={a}
              target="_blank"
              rel="noopener noreferrer"
              className="break-all underline decoration-line underline-offset-2 hover:decoration-ink"
            >
              {a}
            </a>
          ))}
          . Open it, and drop the file here.
        </p>
      );
    case "None":
      return <p className="text-[12.5px]">It was sent to you directly. When you have the file, drop it here.</p>;
    default:
      return null;
  }
}
