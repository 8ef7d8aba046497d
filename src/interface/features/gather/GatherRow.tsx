import { Link } from "react-router";
import type { Dto } from "../../api/client";
import { Withdrawn } from "../../ui/Withdrawn";
import { loanWord } from "../../set/loan/words";
import { HowToGet } from "../../set/library/Held";
import { extentOf } from "../../set/work/extent";
import { documentOf } from "../../set/work/useGather";
import { Chain } from "./Chain";
import { Press } from "../../ui/Press";

type Row = Dto<"GatherRowDto">;

/** One kept work: what it is, what was tried for its text, how it stands. */
export function GatherRow({
  row,
  reviewId,
  selected,
  onOpen,
}: {
  row: Row;
  reviewId: number;
  selected: boolean;
  onOpen: () => void;
}) {
  const document = documentOf(row);
  return (
    <li
      data-work={row.workId}
      aria-current={selected ? "true" : undefined}
      onClick={onOpen}
      className={`grid cursor-pointer grid-cols-[44px_minmax(0,1fr)_200px] gap-2.5 px-[18px] py-2
        max-sm:grid-cols-[40px_minmax(0,1fr)_110px] max-sm:px-3
        [contain-intrinsic-size:auto_72px] [content-visibility:auto] border-t border-soft
        first:border-transparent last:border-b
        ${selected ? "bg-mist/60 shadow-[inset_3px_0_0_var(--pine)]" : "bg-raised hover:bg-paper"}`}
    >
      <span className="text-[12.5px] leading-[1.6] text-quiet">{row.year ?? "n.d."}</span>
      <div className="min-w-0">
        <h3 className="font-serif text-[15px] leading-[1.28] font-semibold">
          <Press tabIndex={-1} className="line-clamp-2 text-left" onClick={onOpen}>
            {row.title || <i className="font-normal">without a title</i>}
          </Press>
        </h3>
        <p className="truncate text-[12.5px] text-quiet">
          {row.withdrawn && (
            <>
              <Withdrawn />{" "}
            </>
          )}
          {[row.people || "no people named", row.venue].filter(Boolean).join(" · ")}
        </p>
        <Chain attempts={row.attempts} going={row.going} />
      </div>
      <div className="text-right text-[12px] text-quiet">
        {row.state === "InHand" && document ? (
          <>
            <b className="block text-[12.5px] font-semibold text-ink">{document.version ?? "version not known"}</b>
            {extentOf(document)} · {document.verdict === "Confirmed" ? "decided by hand" : "all checks agree"}
            <Link
              to={`/r/${reviewId}/read/${document.id}`}
              onClick={(e) => e.stopPropagation()}
              className="mt-0.5 block text-ink underline decoration-line underline-offset-2 hover:decoration-ink"
            >
              read
            </Link>
          </>
        ) : row.state === "Waiting" ? (
          row.share !== null ? (
            <b className="font-semibold text-ink">fetching {Math.round(row.share * 100)} %</b>
          ) : row.going ? null : (
            "waits its turn"
          )
        ) : row.state === "ByLoan" && row.loan ? (
          <>
            <b className="block text-[12.5px] font-semibold text-ink">{loanWord(row.loan)}</b>
            {row.loan.desk}
          </>
        ) : row.state === "NotSought" ? (
          <>
            <span className="block">not sought yet</span>
            <HowToGet reviewId={reviewId} workId={row.workId} said={row.copies} />
          </>
        ) : (
          <>
            <b className="block text-[12.5px] font-semibold text-ink">
              {row.state === "ToLookAt"
                ? "look side by side"
                : row.state === "SignIn"
                  ? "sign in to your library"
                  : "add the file yourself"}
            </b>
            {row.state === "SignIn"
              ? "then it is tried again"
              : row.loan
                ? `loan: ${loanWord(row.loan)}`
                : row.sentence}
          </>
        )}
      </div>
    </li>
  );
}
