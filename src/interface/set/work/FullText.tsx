import { Link } from "react-router";
import type { Dto } from "../../api/client";
import { dayOf } from "../../ui/days";
import { TextButton } from "../../ui/TextButton";
import type { Place } from "../useSet";
import { HeldLine } from "../library/Held";
import { Part } from "./Part";
import { extentOf } from "./extent";
import { useSeek } from "./useGather";

/** Its text where it is in hand, a way to gather it where not, and the copies that databases list. */
export function FullText({ place, work }: { place: Place; work: Dto<"WorkDto"> }) {
  const seek = useSeek(place.reviewId);
  return (
    <Part title="Full text">
      {work.inHand ? (
        <p className="mb-1">
          <Link
            to={`/r/${place.reviewId}/read/${work.inHand.textId}`}
            className="font-semibold underline decoration-line underline-offset-2 hover:decoration-ink"
          >
            Read it
          </Link>{" "}
          <span className="text-quiet">
            in hand: {work.inHand.version ?? "version not known"}, {extentOf(work.inHand)}
          </span>
        </p>
      ) : (
        <p className="mb-1">
          <TextButton onClick={() => seek.mutate({ works: [work.id], again: true })}>Gather its text</TextButton>
        </p>
      )}
      <HeldLine reviewId={place.reviewId} workId={work.id} />
      {work.copies.length === 0 && <p className="text-quiet">No database lists a copy.</p>}
      {work.copies.map((c) => (
        <p key={c.address} className="truncate">
          <b className="font-semibold">{c.version ?? "version not stated"}</b>{" "}
          <span className="text-quiet">
            {c.opensOn !== null
              ? `free from ${dayOf(c.opensOn)} at`
              : c.access === "free"
                ? "free at"
                : c.access === "closed"
                  ? "not free at"
                  : "at"}
          </span>{" "}
          <a
            href={c.address}
            target="_blank"
            rel="noreferrer"
            className="underline decoration-line underline-offset-2 hover:decoration-ink"
          >
            {c.address.replace(/^https?:\/\//, "")}
          </a>
        </p>
      ))}
    </Part>
  );
}
