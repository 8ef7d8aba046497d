import { useState } from "react";
import { Check, TriangleAlert, X } from "lucide-react";
import type { Dto } from "../../api/client";
import { useAskLoans, useDrafts, useLoanCheck } from "../../set/loan/useLoans";
import { money } from "../../set/loan/words";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Field } from "../../ui/Field";
import { count, works as worksWord } from "../../ui/numbers";
import { Press } from "../../ui/Press";
import { Sheet } from "../../ui/Sheet";
import { costOf, DeskChoice, isFull } from "./DeskChoice";
import { LoanForm } from "./LoanForm";

type Draft = Dto<"LoanDraftDto">;

/** What the sheet begins with when a request is made again on other terms. */
export interface Again {
  /** The request that is repeated. */
  previous: number;
  /** The desk that offered it. */
  desk: number;
  /** What it would cost there; null when that was not said. */
  cost: number | null;
}

/** Asks other libraries for works: the fields are filled, checked, and can be mended before anything is sent. */
export function LoanSheet({
  reviewId,
  works,
  again = null,
  close,
}: {
  reviewId: number;
  works: readonly number[];
  again?: Again | null;
  close: () => void;
}) {
  const drafts = useDrafts(reviewId, works);
  return (
    <Sheet
      open
      onOpenChange={close}
      width={900}
      title={works.length === 1 ? "Ask another library" : `Ask another library for ${worksWord(works.length)}`}
      hint="An interlibrary loan request. Nothing is sent or charged until you press the button."
    >
      {drafts.error && <Fault error={drafts.error} again={() => void drafts.refetch()} />}
      {drafts.data ? (
        drafts.data.desks.length === 0 ? (
          <p className="text-[13px]">
            None of your libraries has a loan desk. Libraries are set at the foot of Gather.
          </p>
        ) : (
          <Asking reviewId={reviewId} drafts={drafts.data} again={again} close={close} />
        )
      ) : (
        !drafts.error && <div className="shape h-64 w-full" aria-busy="true" />
      )}
    </Sheet>
  );
}

/** The desk that was asked in vain for the fewest of the works; of several the one that is asked first. */
function fittest({ desks, drafts }: Dto<"LoanDraftsDto">) {
  const vain = (desk: Dto<"AskableDeskDto">) => drafts.filter((d) => d.asked.includes(desk.id)).length;
  return desks.filter((d) => !isFull(d)).sort((a, b) => vain(a) - vain(b))[0] ?? desks[0];
}

function Asking({
  reviewId,
  drafts,
  again,
  close,
}: {
  reviewId: number;
  drafts: Dto<"LoanDraftsDto">;
  again: Again | null;
  close: () => void;
}) {
  const ask = useAskLoans(reviewId);
  const [changed, setChanged] = useState<Readonly<Record<number, Dto<"LoanFields">>>>({});
  const [left, setLeft] = useState<readonly number[]>([]);
  const [inView, setInView] = useState(drafts.drafts[0]?.workId ?? 0);
  const draft = drafts.drafts.find((d) => d.workId === inView) ?? drafts.drafts[0];
  const first = drafts.desks.find((d) => d.id === again?.desk) ?? fittest(drafts);
  const [deskId, setDesk] = useState(first?.id ?? 0);
  const [most, setMost] = useState<string | null>(again?.cost?.toFixed(2) ?? null);
  const [needed, setNeeded] = useState("");
  const [email, setEmail] = useState("");
  const desk = drafts.desks.find((d) => d.id === deskId);
  const fields = draft ? (changed[draft.workId] ?? draft.fields) : null;
  const check = useLoanCheck(draft && changed[draft.workId] ? fields : null);
  const faultsOf = (d: Draft) => (changed[d.workId] && d.workId === inView && check.data ? check.data : d.faults);
  // A request whose fields were changed is looked at once more by the server before it is sent.
  const isReady = (d: Draft) =>
    !d.isOpen && !left.includes(d.workId) && !faultsOf(d).some((f) => f.stops) && desk !== undefined && !isFull(desk);
  const room = desk?.mostOpen == null ? Infinity : Math.max(0, desk.mostOpen - desk.open);
  const sound = drafts.drafts.filter(isReady);
  const ready = sound.slice(0, room);
  const costs = ready.map((d) => (desk ? costOf(desk, (changed[d.workId] ?? d.fields).service) : null));
  const usual = desk && fields ? costOf(desk, fields.service) : null;
  const allowed = most ?? (usual === null ? "" : usual.toFixed(2));
  const isSum = /^\d{1,6}([.,]\d{1,2})?$/.test(allowed.trim()) || allowed.trim() === "";
  if (!draft || !fields || !desk) return null;
  const send = () =>
    ask.mutate(
      ready.map((d) => {
        const own = changed[d.workId] ?? d.fields;
        return {
          workId: d.workId,
          deskId: desk.id,
          fields: own,
          mostCost:
            most === null ? costOf(desk, own.service) : most.trim() === "" ? null : Number(most.replace(",", ".")),
          neededBy: needed || null,
          email: email.trim() || null,
          previous: again?.previous ?? null,
        };
      }),
      { onSuccess: ({ notAsked }) => notAsked.length === 0 && close() },
    );
  const total = costs.every((c) => c !== null) ? costs.reduce((sum, c) => sum + c, 0) : null;
  return (
    <>
      <DeskChoice
        desks={drafts.desks}
        chosen={desk.id}
        asked={draft.asked}
        service={fields.service}
        choose={(d) => {
          setDesk(d.id);
          setMost(null);
        }}
      />
      <div className={drafts.drafts.length > 1 ? "grid grid-cols-[280px_minmax(0,1fr)] gap-4 max-sm:grid-cols-1" : ""}>
        {drafts.drafts.length > 1 && (
          <ul
            aria-label="Works to ask for"
            className="max-h-[52vh] divide-y divide-line overflow-y-auto border-y border-line"
          >
            {drafts.drafts.map((d) => (
              <li key={d.workId} className={d.workId === inView ? "bg-mist/60" : ""}>
                <div className="flex items-start gap-2 px-2 py-1.5 text-[12.5px]">
                  <DraftMark draft={d} ready={isReady(d)} faults={faultsOf(d)} left={left.includes(d.workId)} />
                  <Press
                    className="line-clamp-2 flex-1 text-left font-serif text-[13.5px] leading-tight"
                    aria-current={d.workId === inView ? "true" : undefined}
                    onClick={() => setInView(d.workId)}
                  >
                    {d.title || "Without a title"}
                  </Press>
                  {!d.isOpen && (
                    <Press
                      className="text-quiet underline decoration-line underline-offset-2 hover:text-ink"
                      onClick={() =>
                        setLeft(left.includes(d.workId) ? left.filter((w) => w !== d.workId) : [...left, d.workId])
                      }
                    >
                      {left.includes(d.workId) ? "add" : "leave out"}
                    </Press>
                  )}
                </div>
              </li>
            ))}
          </ul>
        )}
        <div>
          {draft.isOpen && (
            <p className="mb-2 text-[13px] text-aside">
              It has already been requested, and that request is still open.
            </p>
          )}
          {draft.hasText && !draft.isOpen && (
            <p className="mb-2 text-[13px] text-quiet">Its full text is already here.</p>
          )}
          <LoanForm
            fields={fields}
            faults={faultsOf(draft)}
            change={(f) => setChanged({ ...changed, [draft.workId]: f })}
          />
        </div>
      </div>
      <div className="mt-3 grid grid-cols-3 gap-x-3 gap-y-2 max-sm:grid-cols-1">
        <Field
          label={`Costs at most${desk.currency ? `, ${desk.currency}` : ""}`}
          inputMode="decimal"
          value={allowed}
          hint={
            drafts.drafts.length > 1
              ? "Each. If it costs more, the desk asks first."
              : "If it costs more, the desk asks first."
          }
          fault={isSum ? null : "Write a sum as 4.50."}
          onChange={(e) => setMost(e.target.value)}
        />
        <Field
          label="Needed by"
          type="date"
          value={needed}
          hint="Leave empty if any day will do."
          onChange={(e) => setNeeded(e.target.value)}
        />
        <Field
          label="E-mail for copies"
          type="email"
          value={email}
          hint="Only if the desk cannot offer a download."
          onChange={(e) => setEmail(e.target.value)}
        />
      </div>
      {ask.error && <Fault error={ask.error} />}
      {ask.data && ask.data.notAsked.length > 0 && (
        <ul role="alert" className="mt-2 text-[13px] text-aside">
          {ask.data.notAsked.map((n) => (
            <li key={n.workId}>
              {drafts.drafts.length > 1 && `${drafts.drafts.find((d) => d.workId === n.workId)?.title ?? ""}: `}
              {n.sentence}
            </li>
          ))}
        </ul>
      )}
      <div className="sticky -bottom-5 -mx-5 mt-3 -mb-5 flex flex-wrap items-center gap-3 border-t border-line bg-paper px-5 py-3">
        <Button
          kind="primary"
          className="h-9"
          disabled={ready.length === 0 || !isSum || ask.isPending || check.isFetching}
          onClick={send}
        >
          {ready.length === 1 && drafts.drafts.length === 1
            ? "Send the request"
            : `Send ${count(ready.length)} ${ready.length === 1 ? "request" : "requests"}`}
        </Button>
        <p className="text-[12.5px] text-quiet">
          {total === null || ready.length === 0
            ? "The desk does not say what it costs."
            : total === 0
              ? "Free of charge."
              : `${money(total, desk.currency)}${ready.length > 1 ? " in all" : ""}, by the desk’s own terms.`}
          {drafts.drafts.length > ready.length &&
            drafts.drafts.length > 1 &&
            ` ${count(drafts.drafts.length - ready.length)} will not be sent${
              sound.length > ready.length ? `: this desk takes ${count(room)} more now` : ""
            }.`}
        </p>
      </div>
    </>
  );
}

function DraftMark({
  draft,
  ready,
  faults,
  left,
}: {
  draft: Draft;
  ready: boolean;
  faults: readonly Dto<"LoanFieldFault">[];
  left: boolean;
}) {
  const className = "mt-0.5 shrink-0";
  if (draft.isOpen) return <X size={13} className={`${className} text-faint`} aria-label="already requested" />;
  if (left) return <X size={13} className={`${className} text-faint`} aria-label="left out" />;
  if (!ready) return <X size={13} className={`${className} text-futuretext`} aria-label="cannot be sent as it is" />;
  return faults.length > 0 ? (
    <TriangleAlert size={13} className={`${className} text-kept`} aria-label="may not be found" />
  ) : (
    <Check size={13} className={`${className} text-pine`} aria-label="ready" />
  );
}
