import { useRef, useState } from "react";
import { Link } from "react-router";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { moment } from "../../ui/numbers";
import { OutcomeMark } from "./Chain";
import type { LoanParts } from "./loanParts";
import { Doubt } from "./Doubt";
import { HeldLine } from "../../set/library/Held";
import { extentOf } from "../../set/work/extent";
import { documentOf } from "../../set/work/useGather";
import { fileOf, taken, useSeek, useSettle } from "../../set/work/useGather";

type Row = Dto<"GatherRowDto">;

/** All about the text of one work: what was tried, what came, what can be done. */
export function GatherPane({
  reviewId,
  row,
  bring,
  loans,
}: {
  reviewId: number;
  row: Row | null;
  bring: (files: Iterable<File>, workId: number | null) => void;
  loans: LoanParts;
}) {
  const seek = useSeek(reviewId);
  const settle = useSettle(reviewId);
  const chooser = useRef<HTMLInputElement>(null);
  if (!row)
    return (
      <p className="p-[18px] text-quiet">
        Choose a work to see what was tried and what came. J and K go to the next and the previous one.
      </p>
    );
  const document = documentOf(row);
  return (
    <div className="px-[18px] py-3">
      {row.state === "ToLookAt" && document ? (
        <Doubt
          reviewId={reviewId}
          textId={document.id}
          settle={(answer) => settle.mutate({ textId: document.id, answer })}
        />
      ) : (
        <>
          <h2 className="font-serif text-[17px] leading-[1.3] font-semibold">{row.title || "Without a title"}</h2>
          <p className="mb-3 text-[12.5px] text-quiet">
            {[row.people, row.year, row.venue].filter(Boolean).join(" · ")}
          </p>
        </>
      )}
      {row.state === "InHand" && document && (
        <div className="mb-3 border-l-[3px] border-pine pl-3">
          <p>
            <b className="font-semibold">{document.version ?? "version not known"}</b>, {extentOf(document)}
          </p>
          <p className="text-[12.5px] break-words text-quiet">
            {document.sentence} From {document.source}, {moment(document.at)}.
          </p>
          <div className="mt-2 flex gap-2">
            <Link
              to={`/r/${reviewId}/read/${document.id}`}
              className="inline-flex h-8 items-center rounded-md border border-pine bg-pine px-3 text-[13px] font-semibold text-onpine"
            >
              Read
            </Link>
            <a
              href={`${fileOf(reviewId, document.id)}?download=true`}
              className="inline-flex h-8 items-center rounded-md border border-edge bg-raised px-3 text-[13px] hover:border-ink"
            >
              Save the file
            </a>
          </div>
        </div>
      )}
      {row.state === "SignIn" && (
        <div className="mb-3 border-l-[3px] border-aside pl-3">
          <p className="font-semibold">Your library holds it. Sign in to get it.</p>
          <p className="text-[12.5px] text-quiet">
            Sign in at the foot of this page; the works waiting for it are then tried again.
          </p>
        </div>
      )}
      <HeldPart reviewId={reviewId} row={row} />
      {row.state === "NotFound" && (
        <div className="mb-3 border-l-[3px] border-aside pl-3">
          <p className="font-semibold">No full text was found.</p>
          <p className="text-[12.5px] text-quiet">
            Reason: {row.sentence}. If you have the file, drop it here; if you know a page that has it, paste its
            address.
          </p>
        </div>
      )}
      {loans.ofWork(row.workId, row.state === "NotFound" || row.state === "SignIn")}
      {row.state !== "InHand" && row.state !== "Waiting" && (
        <div className="mb-3 flex gap-2">
          <Button
            kind={row.state === "NotSought" ? "primary" : "plain"}
            onClick={() => seek.mutate({ works: [row.workId], again: true })}
          >
            {row.state === "NotSought" ? "Gather this one" : "Try again"}
          </Button>
          <Button onClick={() => chooser.current?.click()}>Add the file …</Button>
          <input
            ref={chooser}
            type="file"
            accept={taken}
            className="hidden"
            aria-label="The file of this work"
            onChange={(e) => {
              bring(e.target.files ?? [], row.workId);
              e.target.value = "";
            }}
          />
        </div>
      )}
      {row.state !== "InHand" && row.state !== "Waiting" && <GivenAddress reviewId={reviewId} workId={row.workId} />}
      {row.attempts.length > 0 && (
        <section className="border-t border-line pt-2">
          <h3 className="mb-1 text-[12.5px] font-semibold">What was tried</h3>
          <ol className="space-y-2 text-[12.5px]">
            {row.attempts.map((a, i) => (
              <li key={i} className="grid grid-cols-[16px_minmax(0,1fr)] gap-1.5">
                <span className="pt-[3px]">
                  <OutcomeMark outcome={a.outcome} />
                </span>
                <div>
                  <p>
                    <b className="font-semibold">{a.route}</b> — {a.sentence}
                  </p>
                  <p className="text-[12px] break-all text-quiet">
                    {a.address} · {moment(a.at)}
                    {a.milliseconds > 0 && ` · ${(a.milliseconds / 1000).toFixed(1)} s`}
                    {a.askedToWait > 0 && `, of which the host asked to wait ${a.askedToWait} s`}
                  </p>
                </div>
              </li>
            ))}
          </ol>
        </section>
      )}
      {row.attempts.length === 0 && row.state === "NotFound" && (
        <p className="text-[12.5px] text-quiet">No database lists a copy, and there is no DOI to follow.</p>
      )}
    </div>
  );
}

/** What the person's libraries say of a work whose text is not in hand. */
function HeldPart({ reviewId, row }: { reviewId: number; row: Row }) {
  return row.state === "InHand" ? null : (
    <div className="mb-3 text-[12.5px] text-quiet">
      <HeldLine reviewId={reviewId} workId={row.workId} />
    </div>
  );
}

/** Where a person knows that the text lies: it is tried before all else. */
function GivenAddress({ reviewId, workId }: { reviewId: number; workId: number }) {
  const seek = useSeek(reviewId);
  const [address, setAddress] = useState("");
  return (
    <form
      className="mb-3 flex items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        seek.mutate({ works: [workId], again: true, address: address.trim() });
      }}
    >
      <Field
        label="Address of its text, if you know one"
        placeholder="https://"
        inputMode="url"
        value={address}
        onChange={(e) => setAddress(e.target.value)}
        className="min-w-0 flex-1"
      />
      <Button type="submit" className="h-9" disabled={address.trim() === "" || seek.isPending}>
        Try it
      </Button>
    </form>
  );
}
