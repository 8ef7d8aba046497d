import { Link, useLocation } from "react-router";
import { barButton } from "../../ui/Button";
import type { Place } from "../useSet";

/** The same set in the other view: as a map where it is a list, as a list where it is a map. */
export function AsMapOrList({ place }: { place: Place }) {
  const isMap = useLocation().pathname.endsWith("/map");
  return (
    <Link
      to={`/r/${place.reviewId}/${isMap ? "search" : "map"}?step=${place.stepId}`}
      className={`${barButton} inline-flex items-center`}
      title={isMap ? "The same set as a list" : "The same set in lanes through time"}
    >
      {isMap ? "List" : "Map"}
    </Link>
  );
}
