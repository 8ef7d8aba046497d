import { Link, useNavigate } from "react-router";
import { extentOf } from "../../set/work/extent";
import { Button } from "../../ui/Button";
import { dayOf } from "../../ui/days";
import { Fault } from "../../ui/Fault";
import { count } from "../../ui/numbers";
import { useReading, type Reading } from "./useReading";

const groups: { title: string; hint: string; state: Reading["state"] }[] = [
  { title: "Go on reading", hint: "opened last first", state: "Begun" },
  { title: "To read next", hint: "cited by most kept works first", state: "Unread" },
  { title: "Read", hint: "", state: "Read" },
];

/** Read, before a text is chosen: the texts in hand, what is to be read next on top. */
export function TextsPage({ reviewId }: { reviewId: number }) {
  const reading = useReading(reviewId);
  const navigate = useNavigate();
  if (reading.error)
    return (
      <div className="p-8">
        <Fault error={reading.error} again={() => void reading.refetch()} />
      </div>
    );
  const all = reading.data ?? [];
  return (
    <div className="min-h-0 flex-1 overflow-y-auto bg-raised">
      <h1 className="border-b border-line bg-paper px-[18px] py-2.5 font-serif text-[18px] font-semibold">
        Texts in hand <span className="font-sans text-[13px] font-normal text-quiet">{count(all.length)}</span>
      </h1>
      {reading.data && all.length === 0 && (
        <div className="p-8">
          <p className="mb-1 font-serif text-[17px]">No text is in hand yet.</p>
          <p className="mb-4 text-quiet">Gather gets the texts of the kept works, and takes in files you have.</p>
          <Button onClick={() => void navigate(`/r/${reviewId}/gather`)}>To Gather</Button>
        </div>
      )}
      {groups.map(({ title, hint, state }) => {
        const rows = all.filter((r) => r.state === state);
        return (
          rows.length > 0 && (
            <section key={state} aria-label={title}>
              <h2
                className={`sticky top-0 flex items-baseline gap-2 border-b border-line bg-paper px-[18px] py-1.5
                  text-[13px] font-semibold`}
              >
                {title} <span className="font-normal text-quiet">{count(rows.length)}</span>
                {hint && <span className="font-normal text-quiet">· {hint}</span>}
              </h2>
              <ul>
                {rows.map((row) => (
                  <ReadingRow key={row.workId} reviewId={reviewId} row={row} />
                ))}
              </ul>
            </section>
          )
        );
      })}
    </div>
  );
}

function ReadingRow({ reviewId, row }: { reviewId: number; row: Reading }) {
  return (
    <li className="border-b border-soft hover:bg-paper" data-reading={row.workId}>
      <Link
        to={`/r/${reviewId}/read/${row.textId}`}
        className={`grid grid-cols-[44px_minmax(0,1fr)_230px] gap-2.5 px-[18px] pt-2
          max-sm:grid-cols-[40px_minmax(0,1fr)] max-sm:gap-x-1.5 max-sm:gap-y-0 max-sm:px-3
          ${row.others.length === 0 ? "pb-2" : ""}`}
      >
        <span className="text-[12.5px] text-quiet">{row.year ?? "n.d."}</span>
        <span className="min-w-0">
          <span className="block font-serif text-[15px] leading-[1.28] font-semibold">{row.title}</span>
          <span className="block truncate text-[12.5px] text-quiet">
            {[row.people, row.venue].filter(Boolean).join(" · ")}
          </span>
        </span>
        <span className="text-right text-[12.5px] text-quiet max-sm:col-start-2 max-sm:text-left">
          {row.version ?? "version not known"}, {extentOf(row)}
          <span className="block">
            {row.state === "Unread" || row.at === null
              ? row.citedByKept > 0 &&
                `cited by ${count(row.citedByKept)} kept ${row.citedByKept === 1 ? "work" : "works"}`
              : `opened ${dayOf(row.at)}`}
          </span>
        </span>
      </Link>
      {row.others.length > 0 && (
        <p className="pb-2 pl-[72px] text-[12.5px] text-quiet max-sm:pl-[58px]">
          also{" "}
          {row.others.map((o, i) => (
            <span key={o.textId}>
              {i > 0 && ", "}
              <Link
                to={`/r/${reviewId}/read/${o.textId}`}
                className="underline decoration-line underline-offset-2 hover:decoration-ink"
              >
                {o.version ?? "version not known"}, {extentOf(o)}
              </Link>
            </span>
          ))}
        </p>
      )}
    </li>
  );
}
