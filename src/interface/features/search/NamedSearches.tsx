import { Button } from "../../ui/Button";
import { useSay } from "../../ui/Toasts";
import { ago, count, works } from "../../ui/numbers";
import { useNamedSearches, useRunNamed } from "../../set/path/useNamed";
import type { Place } from "../../set/useSet";
import { Press } from "../../ui/Press";

/** The searches under a name: what each finds now against its last run; run again, what is new opens as a set. */
export function NamedSearches({ place }: { place: Place }) {
  const named = useNamedSearches(place.reviewId);
  const say = useSay();
  const again = useRunNamed(place, (ran) =>
    say(
      ran.new === 0
        ? `Run again and logged: nothing new${ran.gone > 0 ? `, ${works(ran.gone)} gone` : ""}.`
        : `Run again and logged: ${count(ran.new)} new${ran.gone > 0 ? `, ${count(ran.gone)} gone` : ""}.`,
    ),
  );
  if (!named.data || named.data.length === 0) return null;
  return (
    <section className="mt-8" aria-label="Named searches">
      <h2 className="mb-2 font-serif text-[16px] font-semibold">Named searches</h2>
      <ul className="divide-y divide-line border-y border-line">
        {named.data.map((s) => (
          <li key={s.stepId} className="grid grid-cols-[minmax(0,1fr)_150px_auto] items-center gap-4 px-1 py-2">
            <Press
              className="min-w-0 text-left hover:underline"
              onClick={() => place.change({ step: String(s.stepId), work: null })}
            >
              <span className="block truncate font-semibold">{s.name}</span>
              <span className="block truncate text-[12.5px] text-quiet">{s.asks.join(" › ")}</span>
            </Press>
            <p className="text-right text-[12.5px] text-quiet">
              {s.then === s.now && s.new === 0 ? (
                <>
                  <b className="text-[14px] text-ink">{count(s.now)}</b>, as {ago(s.runAt)}
                </>
              ) : (
                <>
                  {count(s.then)} then, <b className="text-[14px] text-ink">{count(s.now)}</b> now
                  <span className="block">
                    {s.new > 0 && <b className="font-semibold text-ink">{count(s.new)} new</b>}
                    {s.new > 0 && s.gone > 0 && ", "}
                    {s.gone > 0 && `${count(s.gone)} gone`}
                  </span>
                </>
              )}
            </p>
            <Button disabled={again.isPending} onClick={() => again.mutate(s.stepId)}>
              Run again
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
