import { Check } from "lucide-react";
import { Link } from "react-router";
import { count, works } from "../ui/numbers";
import { useMe } from "./useMe";
import { useReviews } from "./useReviews";
import { useDatabases } from "./useDatabases";

/** The way from an empty installation to a first search; nothing once there is something to search. */
export function FirstSteps({ reviewId }: { reviewId: number | null }) {
  const curator = useMe().data?.isCurator ?? false;
  const reviews = useReviews().data;
  const databases = useDatabases().data;
  if (!reviews || !databases || databases.works > 0) return null;
  const review = reviewId ?? reviews[0]?.id ?? null;
  const harvesting = databases.databases.find((d) => d.job !== null && d.job.endedAt === null);
  const toDatabases = review === null ? "/databases" : `/r/${review}/databases`;
  return (
    <section aria-label="First steps" className="mb-8 rounded-md border border-line bg-raised p-5">
      <h2 className="mb-3 font-serif text-[17px] font-semibold">From here to your first search</h2>
      <ol className="space-y-3 text-[13.5px]">
        <Step n={1} done={reviews.length > 0} title="Begin a review">
          A review holds one question, its searches, and the works you keep.
        </Step>
        <Step n={2} done={databases.databases.length > 0} title="Add a database">
          {curator ? (
            <>
              Zendle copies the records of scholarly repositories and searches the copies.{" "}
              <Link to={toDatabases} className="font-semibold underline underline-offset-2">
                Add one by its address
              </Link>{" "}
              and look at what it offers before anything is copied.
            </>
          ) : (
            "A curator of this installation adds databases. Ask one of them."
          )}
        </Step>
        <Step n={3} done={false} title="Harvest it, then search">
          {harvesting?.job
            ? `${harvesting.name}: ${harvesting.job.message} ${count(harvesting.job.done)} records so far, ` +
              `${works(databases.works)} to search.`
            : "Harvesting takes from a minute to a few hours, depending on its size. You can search what has arrived at any time."}
        </Step>
      </ol>
    </section>
  );
}

function Step({ n, done, title, children }: { n: number; done: boolean; title: string; children: React.ReactNode }) {
  return (
    <li className="grid grid-cols-[26px_minmax(0,1fr)] gap-2">
      <span
        className={`grid h-[22px] w-[22px] place-items-center rounded-full text-[12px] font-bold
          ${done ? "bg-pine text-onpine" : "border border-edge"}`}
      >
        {done ? <Check size={13} aria-label="done" /> : n}
      </span>
      <div>
        <b className="font-semibold">{title}</b>
        <p className="text-quiet">{children}</p>
      </div>
    </li>
  );
}
