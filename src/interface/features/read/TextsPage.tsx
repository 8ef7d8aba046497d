import { Link, useNavigate } from "react-router";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { count } from "../../ui/numbers";
import { extentOf } from "../../set/work/extent";
import { documentOf, useGather } from "../../set/work/useGather";

/** Read, before a text is chosen: the texts in hand. */
export function TextsPage({ reviewId }: { reviewId: number }) {
  const gather = useGather(reviewId);
  const navigate = useNavigate();
  const inHand = (gather.data?.works ?? []).flatMap((row) => {
    const text = row.state === "InHand" ? documentOf(row) : null;
    return text ? [{ row, text }] : [];
  });
  if (gather.error)
    return (
      <div className="p-8">
        <Fault error={gather.error} again={() => void gather.refetch()} />
      </div>
    );
  return (
    <div className="min-h-0 flex-1 overflow-y-auto bg-raised">
      <h1 className="border-b border-line bg-paper px-[18px] py-2.5 font-serif text-[18px] font-semibold">
        Texts in hand <span className="font-sans text-[13px] font-normal text-quiet">{count(inHand.length)}</span>
      </h1>
      {gather.data && inHand.length === 0 && (
        <div className="p-8">
          <p className="mb-1 font-serif text-[17px]">No text is in hand yet.</p>
          <p className="mb-4 text-quiet">Gather gets the texts of the kept works, and takes in files you have.</p>
          <Button onClick={() => void navigate(`/r/${reviewId}/gather`)}>To Gather</Button>
        </div>
      )}
      <ul>
        {inHand.map(({ row, text }) => (
          <li key={text.id} className="border-b border-soft">
            <Link
              to={`/r/${reviewId}/read/${text.id}`}
              className={`grid grid-cols-[44px_minmax(0,1fr)_200px] gap-2.5 px-[18px] py-2 hover:bg-paper
                max-sm:grid-cols-[40px_minmax(0,1fr)] max-sm:gap-x-1.5 max-sm:gap-y-0 max-sm:px-3`}
            >
              <span className="text-[12.5px] text-quiet">{row.year ?? "n.d."}</span>
              <span className="min-w-0">
                <span className="block font-serif text-[15px] leading-[1.28] font-semibold">{row.title}</span>
                <span className="block truncate text-[12.5px] text-quiet">
                  {[row.people, row.venue].filter(Boolean).join(" · ")}
                </span>
              </span>
              <span className="text-right text-[12.5px] text-quiet max-sm:col-start-2 max-sm:flex max-sm:gap-2 max-sm:text-left">
                {text.version ?? "version not known"}
                <span className="block">{extentOf(text)}</span>
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </div>
  );
}
