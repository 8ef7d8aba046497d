import { useState } from "react";
import type { Dto } from "../../api/client";
import { TextButton } from "../../ui/TextButton";
import { AskFor } from "./AskFor";
import type { Ask } from "../useAsk";

const fewPeople = 8;

/** The people of a work, each of which can be asked for, and its year. */
export function People({ people, year, ask }: { people: readonly Dto<"PersonDto">[]; year: number | null; ask: Ask }) {
  const [all, setAll] = useState(false);
  const shown = all ? people : people.slice(0, fewPeople);
  return (
    <p data-field="people" className="mt-1 text-[12.5px]">
      {shown.map((p, i) => (
        <span key={i}>
          {i > 0 && " · "}
          <AskFor
            expression={`author:"${[p.given, p.family].filter(Boolean).join(" ")}"`}
            person={p.label}
            name={[p.family, p.given].filter(Boolean).join(", ")}
            ask={ask}
            title={[p.affiliation, p.orcid && `ORCID iD ${p.orcid}`].filter(Boolean).join(", ") || "This name …"}
          >
            {p.family}
            {p.given && `, ${p.given}`}
          </AskFor>
        </span>
      ))}
      {people.length > fewPeople && (
        <TextButton className="ml-1.5 text-quiet" onClick={() => setAll(!all)}>
          {all ? "fewer" : `and ${people.length - fewPeople} more`}
        </TextButton>
      )}
      {people.length === 0 && <span className="text-quiet">No people named</span>}{" "}
      <span className="text-quiet">{year ?? "no year"}</span>
    </p>
  );
}

/** Where it appeared, its type, and its language where that is not English. */
export function Venue({ work, ask }: { work: Dto<"WorkDto">; ask: Ask }) {
  return (
    <p className="mt-0.5 text-[12.5px] text-quiet">
      {work.venue && (
        <AskFor expression={`venue:"${work.venue}"`} ask={ask} title="This venue …">
          {work.venue}
        </AskFor>
      )}
      {work.volume && ` ${work.volume}`}
      {work.issue && `${work.volume ? "" : " "}(${work.issue})`}
      {work.pages && `, ${work.pages}`}
      {work.venue ? " · " : ""}
      {work.type}
      {work.language && work.language !== "English" && ` · ${work.language}`}
    </p>
  );
}
