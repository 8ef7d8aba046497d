import { Link } from "react-router";
import type { Dto } from "../../api/client";
import { useSay, useSayFault } from "../../ui/Toasts";
import { money, reasonWord } from "../../set/loan/words";
import { count, works } from "../../ui/numbers";
import { useLoanAccount, useTextAccount } from "./useLog";
import { TextButton } from "../../ui/TextButton";

type Account = Dto<"TextAccount">;
type Loans = Dto<"LoanAccount">;

/** The account as sentences of a written report. */
export function inSentences(a: Account, loans?: Loans): string {
  const list = (tallies: readonly Dto<"Tally">[]) => tallies.map((t) => `${t.word} (n = ${count(t.count)})`).join("; ");
  return [
    `Reports sought for retrieval: n = ${count(a.sought)}.`,
    `Reports retrieved: n = ${count(a.got)}${a.got > 0 ? `: ${list(a.byVersion)}` : ""}.`,
    `Reports not retrieved: n = ${count(a.notGot)}${a.notGot > 0 ? `: ${list(a.byReason)}` : ""}.`,
    ...(a.waiting > 0 ? [`Still awaited: n = ${count(a.waiting)}.`] : []),
    ...(loans && loans.asked > 0
      ? [
          `Interlibrary loan requests: n = ${count(loans.asked)} for ${works(loans.works)}, ` +
            `of which supplied: n = ${count(loans.supplied)}; not supplied: n = ${count(loans.inVain)}` +
            (loans.inVain > 0
              ? ` (${loans.unfilled.map((u) => `${reasonWord(u.why)}, n = ${count(u.count)}`).join("; ")})`
              : "") +
            `${loans.open > 0 ? `; open: n = ${count(loans.open)}` : ""}.`,
        ]
      : []),
  ].join(" ");
}

/** Full texts in the report: what was sought, got, and not got by reason. */
export function TextReport({ reviewId }: { reviewId: number }) {
  const account = useTextAccount(reviewId).data;
  const loans = useLoanAccount(reviewId).data;
  const say = useSay();
  const fault = useSayFault();
  if (!account || account.sought === 0) return null;
  return (
    <section aria-label="Full texts" className="shrink-0 border-b border-line px-[18px] py-2.5">
      <div className="mb-1.5 flex items-baseline gap-4">
        <h2 className="font-serif text-[18px] font-semibold">Full texts</h2>
        <Link
          to={`/r/${reviewId}/gather`}
          className="text-[12.5px] text-quiet underline decoration-line underline-offset-2 hover:decoration-ink"
        >
          details in Gather
        </Link>
        <TextButton
          className="ml-auto text-[12.5px]"
          onClick={() =>
            void navigator.clipboard
              .writeText(inSentences(account, loans))
              .then(() => say("The sentences are copied."), fault)
          }
        >
          Copy as sentences
        </TextButton>
      </div>
      <div
        className={`grid grid-cols-[110px_minmax(0,1fr)_minmax(0,1.2fr)] gap-x-8 text-[12.5px]
          max-sm:grid-cols-[minmax(0,1fr)] max-sm:gap-y-2`}
      >
        <div>
          <Number n={account.sought} word="sought" />
          {account.waiting > 0 && <Number n={account.waiting} word="still awaited" />}
        </div>
        <div>
          <Number n={account.got} word="retrieved" />
          <Bars tallies={account.byVersion} most={account.sought} colour="var(--pine)" />
        </div>
        <div>
          <Number n={account.notGot} word="not retrieved" />
          <Bars tallies={account.byReason} most={account.sought} colour="var(--aside)" />
        </div>
      </div>
      {loans && loans.asked > 0 && <LoanLine loans={loans} />}
    </section>
  );
}

/** Requests to other libraries, in one line. */
function LoanLine({ loans: l }: { loans: Loans }) {
  return (
    <p className="mt-2 border-t border-line pt-2 text-[12.5px] text-quiet" data-loans={l.asked}>
      <b className="text-[13px] font-semibold text-ink">Interlibrary loan</b>{" "}
      {[
        `${count(l.asked)} ${l.asked === 1 ? "request" : "requests"} for ${works(l.works)}`,
        `${count(l.supplied)} supplied`,
        l.inVain > 0 &&
          `${count(l.inVain)} not supplied (${l.unfilled.map((u) => `${reasonWord(u.why)} ${count(u.count)}`).join(", ")})`,
        l.open > 0 && `${count(l.open)} open`,
        ...l.costs.map((c) => `cost ${money(c.amount, c.currency)}`),
      ]
        .filter(Boolean)
        .join(" · ")}
    </p>
  );
}

function Number({ n, word }: { n: number; word: string }) {
  return (
    <p className="flex items-baseline gap-1.5">
      <b className="text-[18px] leading-tight font-bold">{count(n)}</b>
      <span className="text-quiet">{word}</span>
    </p>
  );
}

function Bars({ tallies, most, colour }: { tallies: readonly Dto<"Tally">[]; most: number; colour: string }) {
  return (
    <ul>
      {tallies.map((t) => (
        <li key={t.word} className="grid grid-cols-[36px_110px_minmax(0,1fr)] items-center gap-2">
          <b className="text-right font-semibold">{count(t.count)}</b>
          <span aria-hidden="true" className="h-[5px] rounded-sm bg-soft">
            <span
              className="block h-full rounded-sm"
              style={{ width: `${(100 * t.count) / most}%`, background: colour }}
            />
          </span>
          <span className="text-quiet">{t.word}</span>
        </li>
      ))}
    </ul>
  );
}
