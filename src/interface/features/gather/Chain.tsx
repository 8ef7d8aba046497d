import { Check, Minus, TriangleAlert, X } from "lucide-react";
import type { Dto } from "../../api/client";

type Attempt = Dto<"AttemptDto">;

/** What came of an attempt, as a shape: a tick got it, a cross did not, a sign waits for a person, a dash found nothing there. */
export function OutcomeMark({ outcome }: { outcome: Attempt["outcome"] }) {
  switch (outcome) {
    case "Got":
      return <Check size={13} strokeWidth={2.6} className="text-pine" aria-label="got" />;
    case "Doubtful":
      return <TriangleAlert size={13} strokeWidth={2.2} className="text-kept" aria-label="to look at" />;
    case "NoTextThere":
      return <Minus size={13} strokeWidth={2.4} className="text-faint" aria-label="nothing there" />;
    default:
      return <X size={13} strokeWidth={2.4} className="text-futuretext" aria-label="not got" />;
  }
}

/** The attempts of a work in order, from left to right. */
export function Chain({ attempts, going }: { attempts: readonly Attempt[]; going: string | null }) {
  if (attempts.length === 0 && !going) return null;
  return (
    <p className="mt-1 flex flex-wrap items-center gap-x-2 gap-y-0.5 text-[12px]">
      {going ? (
        <span className="flex items-center gap-1.5">
          <span
            aria-hidden="true"
            className="h-[11px] w-[11px] animate-spin rounded-full border-2 border-kept border-t-transparent"
          />
          {going}
        </span>
      ) : (
        attempts.map((a, i) => (
          <span key={i} className="flex items-center gap-1.5">
            {i > 0 && <span aria-hidden="true" className="mr-1 h-px w-3.5 bg-edge/60" />}
            <OutcomeMark outcome={a.outcome} />
            <span title={a.sentence}>
              <span className="text-quiet">{a.route}:</span> {a.brief}
            </span>
          </span>
        ))
      )}
    </p>
  );
}
