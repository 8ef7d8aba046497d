import { useNavigate } from "react-router";
import type { Dto } from "../../api/client";
import { useOpenKept, usePaths, useStepView } from "../../set/useSet";
import { Press } from "../../ui/Press";
import { works } from "../../ui/numbers";

const most = 8;

/** Where no set is in view yet: what can be put on a map. */
export function StartMap({ review }: { review: Dto<"ReviewDto"> }) {
  const navigate = useNavigate();
  const openKept = useOpenKept(review.id, "map");
  const paths = usePaths(review.id, true).data ?? [];
  const go = (step: number) => void navigate(`/r/${review.id}/map?step=${step}`);
  return (
    <div className="max-w-[640px] overflow-y-auto p-8">
      <h2 className="mb-1 font-serif text-[20px] font-semibold">Put a set on the map</h2>
      <p className="mb-4 text-quiet">
        Its works stand in lanes along time, each lane a topic, a tag or whatever you choose, with the citations among
        them. It is the same set as the list.
      </p>
      <ul className="grid gap-1.5">
        <Row label="The kept works" works={review.kept} onGo={openKept} />
        {review.stepId !== null && (
          <Step reviewId={review.id} stepId={review.stepId} label="The last search" onGo={go} />
        )}
        {review.trailStepId !== 0 && (
          <Step reviewId={review.id} stepId={review.trailStepId} label="The last trail" onGo={go} />
        )}
        {paths.slice(0, most).map((p) => (
          <Row key={p.id} label={p.label} works={p.count} onGo={() => go(p.id)} />
        ))}
      </ul>
    </div>
  );
}

function Step({
  reviewId,
  stepId,
  label,
  onGo,
}: {
  reviewId: number;
  stepId: number;
  label: string;
  onGo: (step: number) => void;
}) {
  const view = useStepView(reviewId, stepId).data;
  return view ? <Row label={label} works={view.count} onGo={() => onGo(stepId)} /> : null;
}

function Row({ label, works: n, onGo }: { label: string; works: number; onGo: () => void }) {
  return (
    <li>
      <Press
        onClick={onGo}
        disabled={n === 0}
        className="flex w-full items-baseline justify-between gap-4 rounded-md border border-line bg-raised px-3 py-2 text-left hover:border-ink disabled:opacity-50"
      >
        <span className="font-semibold">{label}</span>
        <span className="whitespace-nowrap text-quiet">{works(n)}</span>
      </Press>
    </li>
  );
}
