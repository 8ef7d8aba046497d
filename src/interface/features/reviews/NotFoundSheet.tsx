import { Fault } from "../../ui/Fault";
import { Sheet } from "../../ui/Sheet";
import { useNotFound } from "../../review/useReviews";

/** The kept works of a review that no database holds now, as they were when they were kept. */
export function NotFoundSheet({
  reviewId,
  open,
  onOpenChange,
}: {
  reviewId: number;
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const works = useNotFound(reviewId, open);
  return (
    <Sheet
      open={open}
      onOpenChange={onOpenChange}
      title="Kept, but in no database now"
      hint={
        "Their decisions are safe. Each comes back by itself when a database brings a " +
        "record with its identifier, its DOI, or its title and first author."
      }
      width={640}
    >
      {works.error && <Fault error={works.error} again={() => void works.refetch()} />}
      {works.isPending && <div className="shape h-24 w-full" aria-busy="true" />}
      <ul className="divide-y divide-line">
        {works.data?.map((w) => (
          <li key={w.workId} className="grid grid-cols-[44px_minmax(0,1fr)] items-baseline gap-2 py-2">
            <span className="tabular-nums text-quiet">{w.year ?? "–"}</span>
            <span>
              <span className="font-serif text-[15px]">{w.title}</span>
              <span className="block text-[12.5px] text-quiet">
                {[w.people, w.doi && `DOI ${w.doi}`].filter(Boolean).join(" · ")}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </Sheet>
  );
}
