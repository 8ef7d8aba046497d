import { useNavigate } from "react-router";
import type { Dto } from "../../api/client";
import { useOpenKept, usePaths, useStepView } from "../../set/useSet";
import { Press } from "../../ui/Press";
import { TextButton } from "../../ui/TextButton";
import { addressOf } from "./looks";
import { sinceSaved } from "./NamedStrip";
import { useNamedMaps, useRemoveMap } from "./useNamedMaps";
import { dayOf } from "../../ui/days";
import { works } from "../../ui/numbers";

const most = 8;

/** Where no set is in view yet: what can be put on a map. */
export function StartMap({ review }: { review: Dto<"ReviewDto"> }) {
  const navigate = useNavigate();
  const openKept = useOpenKept(review.id, "map");
  const paths = usePaths(review.id, true).data ?? [];
  const named = useNamedMaps(review.id).data ?? [];
  const remove = useRemoveMap(review.id);
  const go = (step: number) => void navigate(`/r/${review.id}/map?step=${step}`);
  return (
    <div className="max-w-[640px] overflow-y-auto p-8">
      <h2 className="mb-1 font-serif text-[20px] font-semibold">Put a set on the map</h2>
      <p className="mb-4 text-quiet">
        Its works stand in lanes along time, each lane a topic, a tag or whatever you choose, with the citations among
        them. It is the same set as the list.
      </p>
      {named.length > 0 && (
        <section aria-label="Named maps" className="mb-6">
          <h3 className="mb-1.5 text-[13px] font-semibold">Maps of this review</h3>
          <ul className="grid gap-1.5">
            {named.map((m) => (
              <li key={m.id} className="flex items-center gap-3">
                <div className="min-w-0 flex-1">
                  <Choice
                    label={m.name}
                    aside={m.stepId === 0 ? "" : works(m.now)}
                    more={
                      m.stepId === 0
                        ? "its set was removed from the path"
                        : `${m.set}; saved by ${m.by} on ${dayOf(m.at)}${sinceSaved(m) === null ? "" : `; since then ${sinceSaved(m)}`}`
                    }
                    disabled={m.stepId === 0}
                    onGo={() => void navigate(addressOf(review.id, m))}
                  />
                </div>
                <TextButton
                  className="text-[12.5px] text-quiet"
                  aria-label={`Remove ${m.name}`}
                  onClick={() => remove(m)}
                >
                  remove
                </TextButton>
              </li>
            ))}
          </ul>
        </section>
      )}
      {named.length > 0 && <h3 className="mb-1.5 text-[13px] font-semibold">Other sets</h3>}
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
      <Choice label={label} aside={works(n)} disabled={n === 0} onGo={onGo} />
    </li>
  );
}

function Choice({
  label,
  aside,
  more,
  disabled,
  onGo,
}: {
  label: string;
  aside: string;
  /** A second line. */
  more?: string;
  disabled: boolean;
  onGo: () => void;
}) {
  return (
    <Press
      onClick={onGo}
      disabled={disabled}
      className={`flex w-full items-baseline justify-between gap-4 rounded-md border border-line bg-raised px-3 py-2
        text-left hover:border-ink disabled:opacity-50`}
    >
      <span className="min-w-0">
        <span className="font-semibold">{label}</span>
        {more && <span className="block truncate text-[12.5px] text-quiet">{more}</span>}
      </span>
      <span className="whitespace-nowrap text-quiet">{aside}</span>
    </Press>
  );
}
