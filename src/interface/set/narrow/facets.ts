import type { Dto } from "../../api/client";
import type { Facet } from "../useSet";

/** What the fields are called on chips. */
export const facetNames: Record<Facet, string> = {
  Year: "Year",
  Type: "Type",
  Language: "Language",
  Venue: "Venue",
  Subject: "Subject",
  Person: "Person",
  Database: "Database",
  Text: "Full text",
  Stage: "Stage",
  Tag: "Tag",
  Affiliation: "Affiliation",
  Country: "Country",
  Funder: "Funder",
  Quartile: "Quartile",
  OpenAccess: "Open access",
  Keyword: "Keyword",
  Library: "Library",
};

/** What a field's counts rest on, where that is not plain. */
export const facetHints: Partial<Record<Facet, string>> = {
  Quartile:
    "Of journals, by citations counted in this corpus for the last full year; the best of a journal's categories.",
  Library:
    "Works that a library's holdings cover, or may cover where records do not say exactly enough when a work appeared.",
  Country: "Countries the work is about, as its records say.",
  Affiliation: "As printed; different spellings of one institution are counted apart.",
};

/** The fields that have chips, those used most first. */
export const chipFields: Facet[] = [
  "Type",
  "Subject",
  "Venue",
  "Person",
  "Text",
  "Library",
  "Stage",
  "Tag",
  "Keyword",
  "Language",
  "Database",
  "OpenAccess",
  "Quartile",
  "Affiliation",
  "Country",
  "Funder",
];

/** A narrowing by a field in words: values one of which is asked for, those required beside them, those left out. */
export const narrowingSaid = (n: Dto<"NarrowingDto">): string =>
  [
    n.values.join(", "),
    n.each.length > 0 ? `with ${n.each.join(", ")}` : "",
    n.excluded.length > 0 ? `without ${n.excluded.join(", ")}` : "",
  ]
    .filter(Boolean)
    .join("; ");
