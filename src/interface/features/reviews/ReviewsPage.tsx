import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Field } from "../../ui/Field";
import { count } from "../../ui/numbers";
import { FirstSteps } from "../../review/FirstSteps";
import { useDatabases } from "../../review/useDatabases";
import { usePreparing } from "../../review/usePreparing";
import { useNewReview, useReviews } from "../../review/useReviews";
import { TextArea } from "../../ui/Input";

/** All reviews of the person, and the place to begin another. */
export function ReviewsPage() {
  const reviews = useReviews();
  const preparing = usePreparing();
  return (
    <div className="min-h-0 flex-1 overflow-y-auto">
      <div className="grid grid-cols-[minmax(0,1fr)_380px] gap-10 p-8 max-[1100px]:grid-cols-1">
        <section>
          {preparing === null ? (
            <FirstSteps reviewId={null} />
          ) : (
            <p role="status" className="mb-6 rounded-md border border-line bg-raised px-4 py-3">
              <b className="block font-semibold">The demo is being prepared.</b>
              <span className="text-quiet">{preparing} Its review will be listed here.</span>
            </p>
          )}
          <h1 className="mb-4 font-serif text-[22px] font-semibold">Your reviews</h1>
          {reviews.error && <Fault error={reviews.error} again={() => void reviews.refetch()} />}
          {reviews.data?.length === 0 && preparing === null && (
            <p className="mb-3 text-quiet">None yet. A review holds one question, its searches and what you keep.</p>
          )}
          <ul className="divide-y divide-line border-y border-line">
            {reviews.data?.map((r) => (
              <li key={r.id} className="grid grid-cols-[minmax(0,1fr)_80px_90px] items-baseline gap-6 py-3.5">
                <div>
                  <Link to={`/r/${r.id}/search`} className="font-serif text-[16px] font-semibold hover:underline">
                    {r.title}
                  </Link>
                  <p className="text-[13px] text-quiet">{r.question || "The question is not written yet."}</p>
                </div>
                <Number n={r.kept} unit="kept" />
                <Number n={r.setAside} unit="set aside" />
              </li>
            ))}
          </ul>
        </section>
        <NewReview />
      </div>
    </div>
  );
}

function Number({ n, unit }: { n: number; unit: string }) {
  return (
    <span className="text-right">
      <b className="block text-[15px] font-bold">{count(n)}</b>
      <span className="text-[11.5px] text-quiet">{unit}</span>
    </span>
  );
}

function NewReview() {
  const [title, setTitle] = useState("");
  const [question, setQuestion] = useState("");
  const create = useNewReview();
  const navigate = useNavigate();
  // Where there is nothing to search yet, a database comes next.
  const nothing = useDatabases().data?.databases.length === 0;
  return (
    <form
      className="h-fit rounded-md border border-line bg-raised p-5"
      onSubmit={(e) => {
        e.preventDefault();
        create.mutate(
          { title, question },
          { onSuccess: (r) => void navigate(`/r/${r.id}/${nothing ? "databases" : "search"}`) },
        );
      }}
    >
      <h2 className="mb-3 font-serif text-[16px] font-semibold">Begin a review</h2>
      <Field
        label="Title"
        value={title}
        onChange={(e) => setTitle(e.target.value)}
        maxLength={200}
        required
        className="mb-3"
      />
      <label className="mb-1 block text-[12.5px] font-semibold" htmlFor="new-question">
        Question
      </label>
      <TextArea
        id="new-question"
        value={question}
        onChange={(e) => setQuestion(e.target.value)}
        maxLength={2000}
        rows={4}
        className="mb-3"
      />
      <Button type="submit" kind="primary" disabled={create.isPending || title.trim() === ""}>
        Begin
      </Button>
      {create.error && <div className="mt-3">{<Fault error={create.error} />}</div>}
    </form>
  );
}
