import type { Dto } from "../../api/client";
import { WhyThis } from "../../set/reference/WhyThis";
import { TextButton } from "../../ui/TextButton";
import type { Pasted } from "./usePasted";

/** One pasted reference with the works it means or may mean, to tick. */
export function PastedEntry({
  reference: r,
  chosen,
  onChoose,
  onAdd,
}: {
  reference: Pasted;
  chosen: number | null;
  onChoose: (work: number | null) => void;
  /** Adds what nothing here is as a custom entry; null where that is not to be. */
  onAdd: (() => void) | null;
}) {
  return (
    <li className="border-b border-soft py-2 text-[13px]">
      <p className={r.verdict === "NotHere" ? "" : "text-[12.5px] text-quiet"}>{r.text}</p>
      {r.candidates.map((c) => (
        <label
          key={c.workId}
          className="mt-1 grid cursor-pointer grid-cols-[18px_minmax(0,1fr)] items-baseline gap-1.5"
        >
          <input
            type="checkbox"
            checked={chosen === c.workId}
            onChange={(e) => onChoose(e.target.checked ? c.workId : null)}
          />
          <span>
            <span className="font-serif text-[14.5px] font-semibold">{c.title}</span>{" "}
            <span className="text-quiet">{named(c)}</span>
            <span className="block text-[12px] text-quiet">
              <WhyThis work={c} isSure={r.verdict === "Sure"} />
            </span>
          </span>
        </label>
      ))}
      {onAdd && (
        <TextButton className="mt-1 text-[12.5px] text-quiet" onClick={onAdd}>
          {r.candidates.length > 0 ? "None of these: add it as a custom entry" : "Add it as a custom entry"}
        </TextButton>
      )}
    </li>
  );
}

const named = (c: Dto<"PastedCandidateDto">) => [c.person, c.year, c.venue].filter(Boolean).join(", ");
