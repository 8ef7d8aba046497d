import { useRef, type KeyboardEvent } from "react";
import { Fault } from "../../../ui/Fault";
import { Marked } from "../../../ui/Marked";
import { StageMark } from "../../../ui/StageMark";
import { TextButton } from "../../../ui/TextButton";
import { count, works } from "../../../ui/numbers";
import type { Dto } from "../../../api/client";
import type { TermsContext } from "./context";
import { useTrial } from "./useTerms";

/** The works that a term alone would bring, or remove, to be judged before it is taken. */
export function Trial({
  context,
  expression,
  card,
  onTake,
}: {
  context: TermsContext;
  expression: string;
  card: number;
  onTake: () => void;
}) {
  const trial = useTrial(context.line, expression, card);
  const list = useRef<HTMLUListElement>(null);
  const data = trial.data;
  if (trial.error) return <Fault error={trial.error} />;
  if (!data) return <div className="shape h-12 w-full" aria-busy="true" />;
  const go = (from: HTMLElement, by: number) => {
    const rows = [...(list.current?.children ?? [])];
    const next = rows[rows.indexOf(from) + by];
    if (next instanceof HTMLElement) next.focus();
  };
  const keys = (e: KeyboardEvent<HTMLLIElement>, work: Dto<"WorkRowDto">) => {
    if (e.ctrlKey || e.metaKey || e.altKey || e.target !== e.currentTarget) return;
    if (e.key === "p") context.decide.one(work.id, work.stage === "Kept" ? "Clear" : "Keep");
    else if (e.key === "x") context.setAside(work.id);
    else if (e.key === "j" || e.key === "ArrowDown") go(e.currentTarget, 1);
    else if (e.key === "k" || e.key === "ArrowUp") go(e.currentTarget, -1);
    else return;
    e.preventDefault();
  };
  return (
    <div className="rounded-md border border-line bg-raised">
      <p className="flex items-baseline gap-2 border-b border-soft px-2 py-1 text-[12px] text-quiet">
        <span className="min-w-0 flex-1">
          {data.adds === 0 && data.removes === 0
            ? "It changes nothing in view."
            : [data.adds > 0 && `brings ${works(data.adds)}`, data.removes > 0 && `removes ${works(data.removes)}`]
                .filter(Boolean)
                .join(", ")}
          {data.works.length > 0 && data.works.length < Math.max(data.adds, data.adds === 0 ? data.removes : 0)
            ? `; the ${count(data.works.length)} most cited:`
            : data.works.length > 0 && ":"}
        </span>
        <TextButton className="min-h-6" disabled={context.isTaking} onClick={onTake}>
          {card < 0 ? "exclude" : "take"}
        </TextButton>
      </p>
      <ul ref={list} aria-label={`Works of ${expression}`} className="max-h-[230px] overflow-y-auto">
        {data.works.map((w) => (
          // The keys of the list act on the row in focus.
          <li
            key={w.id}
            // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
            tabIndex={0}
            onKeyDown={(e) => keys(e, w)}
            className={`grid grid-cols-[34px_minmax(0,1fr)_auto] items-baseline gap-x-2 border-b border-soft px-2 py-1
              text-[12.5px] last:border-b-0`}
          >
            <span className="flex items-center gap-1 text-[11.5px] text-quiet">{w.year ?? "n.d."}</span>
            <span className="min-w-0">
              <span className="line-clamp-2 font-serif text-[13px] leading-[1.3]">
                <Marked text={w.title} />
              </span>
              <span className="block truncate text-[11.5px] text-quiet">
                {[w.people, w.venue].filter(Boolean).join(" · ")}
              </span>
            </span>
            <span className="flex items-center gap-1.5">
              <StageMark stage={w.stage} />
              <TextButton
                tabIndex={-1}
                className="min-h-6 text-[11.5px]"
                onClick={() => context.decide.one(w.id, w.stage === "Kept" ? "Clear" : "Keep")}
              >
                {w.stage === "Kept" ? "not kept" : "keep"}
              </TextButton>
              {w.stage !== "SetAside" && (
                <TextButton tabIndex={-1} className="min-h-6 text-[11.5px]" onClick={() => context.setAside(w.id)}>
                  set aside
                </TextButton>
              )}
            </span>
          </li>
        ))}
      </ul>
      {data.works.length > 0 && (
        <p className="border-t border-soft px-2 py-0.5 text-[11.5px] text-faint">
          P keeps and X sets aside the work in focus; J and K go on
        </p>
      )}
    </div>
  );
}
