import type { LaneField, LaneOrder, MapAlong, MapColour, MapSize } from "./useMap";

/** What lanes can be, as they stand in the menu. */
export const laneWords: [LaneField, string][] = [
  ["Topic", "topics found here"],
  ["Tag", "tags"],
  ["Stage", "stages"],
  ["Subject", "subjects"],
  ["Venue", "journals and books"],
  ["Person", "people"],
  ["Database", "databases"],
  ["Country", "countries"],
  ["Type", "types of document"],
  ["Method", "study designs and methods"],
  ["Sense", "senses of the words"],
  ["Seed", "seeds they are tied to"],
];

export const orderWords: [LaneOrder, string][] = [
  ["Size", "largest first"],
  ["First", "oldest first"],
  ["Links", "linked side by side"],
];

export const alongWords: [MapAlong, string][] = [
  ["Year", "year"],
  ["Rank", "rank by links"],
  ["Found", "day found"],
];

export const colourWords: [MapColour, string][] = [
  ["Lane", "lane"],
  ["Tag", "tag"],
];

export const sizeWords: [MapSize, string][] = [
  ["Cited", "citations"],
  ["CitedPerYear", "citations a year"],
  ["Links", "links inside this set"],
  ["Seeds", "seeds it is tied to"],
  ["Pages", "pages"],
  ["Same", "nothing"],
];

/** What the size of marks says; null where it says nothing. */
export const sizeSaid = (size: MapSize): string | null =>
  size === "Same" ? null : (sizeWords.find(([s]) => s === size)?.[1] ?? "citations counted by one database");

/** What the lane of works without a value is called. */
export const withoutWords: Record<LaneField, string> = {
  Topic: "in no topic",
  Tag: "no tag",
  Stage: "no stage",
  Subject: "no subject",
  Venue: "no journal or book",
  Person: "nobody named",
  Database: "in no database",
  Country: "no country",
  Type: "no type",
  Method: "no method named",
  Sense: "in no sense",
  Seed: "tied to no seed",
};
