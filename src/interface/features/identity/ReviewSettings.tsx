import { useState } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Field } from "../../ui/Field";
import { useSay } from "../../ui/Toasts";
import { Card } from "./AccountPage";
import { useChangeReview, useMembers, useMemberActs, useReview } from "../../review/useReviews";
import { Select, TextArea } from "../../ui/Input";

/** Title, question, target band and members of a review; owners change them, others see them. */
export function ReviewSettings({ reviewId }: { reviewId: number }) {
  const review = useReview(reviewId);
  return review.data ? <Settings key={reviewId} review={review.data} /> : null;
}

function Settings({ review }: { review: Dto<"ReviewDto"> }) {
  const [title, setTitle] = useState(review.title);
  const [question, setQuestion] = useState(review.question);
  const [low, setLow] = useState(String(review.bandLow));
  const [high, setHigh] = useState(String(review.bandHigh));
  const change = useChangeReview(review.id);
  const say = useSay();
  const mine = review.role === "Owner";
  return (
    <Card title="This review">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          change.mutate(
            { title, question, bandLow: Number(low), bandHigh: Number(high) },
            { onSuccess: () => say("The review is changed.") },
          );
        }}
      >
        <fieldset disabled={!mine} className="min-w-0">
          <Field
            label="Title"
            value={title}
            onChange={(e) => setTitle(e.target.value)}
            className="mb-3"
            maxLength={200}
            required
          />
          <label className="mb-1 block text-[12.5px] font-semibold" htmlFor="question">
            Question
          </label>
          <TextArea
            id="question"
            value={question}
            onChange={(e) => setQuestion(e.target.value)}
            rows={3}
            maxLength={2000}
            className="mb-3"
          />
          <div className="mb-3 flex flex-wrap items-end gap-3">
            <Field
              label="Target size: from"
              type="number"
              min={1}
              value={low}
              onChange={(e) => setLow(e.target.value)}
              className="w-40"
            />
            <Field
              label="to"
              type="number"
              min={2}
              value={high}
              onChange={(e) => setHigh(e.target.value)}
              className="w-28"
            />
            <span className="pb-2 text-quiet">works</span>
          </div>
          {mine && (
            <Button type="submit" disabled={change.isPending}>
              Save the review
            </Button>
          )}
        </fieldset>
        {change.error && <div className="mt-3">{<Fault error={change.error} />}</div>}
      </form>
      <Members reviewId={review.id} mine={mine} />
    </Card>
  );
}

type Role = Dto<"MemberDto">["role"];

/** What roles are called. */
const roleWords: Record<Role, string> = { Reader: "reader", Screener: "screener", Owner: "owner" };

function Members({ reviewId, mine }: { reviewId: number; mine: boolean }) {
  const members = useMembers(reviewId);
  const acts = useMemberActs(reviewId);
  const error = acts.put.error ?? acts.remove.error;
  const [name, setName] = useState("");
  const [role, setRole] = useState<Role | "none">("Screener");
  return (
    <div className="mt-5 border-t border-line pt-4">
      <h3 className="mb-2 text-[13px] font-semibold">Members</h3>
      <ul className="mb-3 space-y-1">
        {members.data?.map((m) => (
          <li key={m.name} className="flex gap-3">
            <span>{m.displayName}</span>
            <span className="text-quiet">{roleWords[m.role]}</span>
          </li>
        ))}
      </ul>
      {mine && (
        <form
          className="flex flex-wrap items-end gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            const done = { onSuccess: () => setName("") };
            if (role === "none") acts.remove.mutate(name, done);
            else acts.put.mutate({ name, role }, done);
          }}
        >
          <Field label="Account" value={name} onChange={(e) => setName(e.target.value)} className="w-44" required />
          <label className="text-[12.5px] font-semibold">
            Role
            <Select
              value={role}
              onChange={(e) => setRole(e.target.value as Role | "none")}
              className="mt-1 block h-9 text-[13px] font-normal"
            >
              <option value="Reader">reader: can see everything</option>
              <option value="Screener">screener: searches and decides</option>
              <option value="Owner">owner</option>
              <option value="none">none: removed from the review</option>
            </Select>
          </label>
          <Button type="submit" disabled={acts.put.isPending || acts.remove.isPending}>
            Add or change
          </Button>
        </form>
      )}
      {error && (
        <div className="mt-3">
          <Fault error={error} />
        </div>
      )}
    </div>
  );
}
