import { forwardRef } from "react";
import type { Dto } from "../../api/client";
import { count } from "../../ui/numbers";

interface Props {
  text: string;
  onText: (text: string) => void;
  onSearch: (text: string) => void;
  reading: Dto<"ReadingDto"> | null;
  late: boolean;
  editing: boolean;
  view: Dto<"StepViewDto"> | null | undefined;
  boardOpen: boolean;
  onFold: () => void;
  onOpenWork: (id: number) => void;
}

/** The line, and under it what a person should know about how it is read. */
export const SearchLine = forwardRef<HTMLInputElement, Props>(function SearchLine(
  { text, onText, onSearch, reading, late, editing, view, boardOpen, onFold, onOpenWork },
  ref,
) {
  const problem = reading?.problems[0];
  return (
    <section aria-label="Search line" className="shrink-0">
      <form
        role="search"
        className="flex items-center gap-2.5 px-[18px] py-1.5"
        onSubmit={(e) => {
          e.preventDefault();
          onSearch(text);
        }}
      >
        <span aria-hidden="true" className="text-[15px] font-bold text-pine">
          /
        </span>
        <input
          ref={ref}
          value={text}
          onChange={(e) => onText(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === "Escape") e.currentTarget.blur();
          }}
          aria-label="Search the databases"
          aria-invalid={problem ? true : undefined}
          aria-describedby="line-reading"
          placeholder="Words, a title, a DOI"
          spellCheck={false}
          autoComplete="off"
          className={`h-8 min-w-0 flex-1 rounded-md border bg-raised px-2.5 text-[14px] outline-offset-0 ${problem ? "border-aside" : editing ? "border-pine" : "border-line hover:border-edge"}`}
        />
        <CountAhead reading={reading} late={late} editing={editing} view={view} />
        <button
          type="button"
          onClick={onFold}
          aria-expanded={boardOpen}
          className="h-7 rounded-full border border-edge bg-raised px-2.5 text-[12px] whitespace-nowrap text-quiet hover:border-ink"
        >
          {boardOpen ? "fold" : "board"} <kbd className="ml-0.5 rounded border border-line px-1 text-[11.5px]">B</kbd>
        </button>
      </form>
      <div id="line-reading" aria-live="polite" className="px-[18px]">
        {reading?.direct.map((d) => (
          <p key={d.workId} className="mb-1.5 flex items-baseline gap-2 text-[13px]">
            <span className="text-quiet">One work {d.why}:</span>
            <button
              type="button"
              onClick={() => onOpenWork(d.workId)}
              className="min-w-0 truncate font-serif text-[14px] font-semibold underline decoration-line underline-offset-2 hover:decoration-ink"
            >
              {d.title}
            </button>
            <span className="text-quiet">{d.year}</span>
          </p>
        ))}
        {problem && (
          <p className="mb-1.5 text-[13px] text-aside">
            {problem.sentence}{" "}
            {problem.repairText !== null && (
              <button
                type="button"
                onClick={() => onText(problem.repairText ?? text)}
                className="font-semibold underline underline-offset-2"
              >
                {problem.repairLabel}
              </button>
            )}
          </p>
        )}
        {reading?.notices.map((n) => (
          <Notice key={`${n.kind} ${n.start}`} notice={n} text={text} onTake={onSearch} />
        ))}
      </div>
    </section>
  );
});

function CountAhead({ reading, late, editing, view }: Pick<Props, "reading" | "late" | "editing" | "view">) {
  if (editing && reading)
    return (
      <span
        className={`flex items-center gap-2 text-[12.5px] whitespace-nowrap text-quiet ${late ? "opacity-50" : ""}`}
      >
        {reading.inView === null ? (
          "nothing to search"
        ) : (
          <>
            <span>
              <b className="text-[14px] font-bold text-ink">{count(reading.inView)}</b>{" "}
              {reading.isSound ? "to come" : "so far"}
            </span>
            {reading.isSound && (
              <button type="submit" className="h-7 rounded-md bg-pine px-2.5 font-semibold text-onpine">
                Search <kbd className="font-normal opacity-80">Enter</kbd>
              </button>
            )}
          </>
        )}
      </span>
    );
  if (!view || view.state.expression === "") return null;
  const on = view.ledger.databases.filter((d) => d.chosen);
  return (
    <span className="text-[12.5px] whitespace-nowrap text-quiet max-[1150px]:hidden">
      {on.length === 1 ? (on[0]?.name ?? "") : `${on.length} databases`}, {count(view.ledger.duplicates)}{" "}
      {view.ledger.duplicates === 1 ? "duplicate" : "duplicates"} joined
    </span>
  );
}

function Notice({ notice, text, onTake }: { notice: Dto<"NoticeDto">; text: string; onTake: (text: string) => void }) {
  return (
    <p className="mb-1.5 flex flex-wrap items-center gap-x-2 gap-y-1 text-[12.5px] text-quiet">
      <span>{notice.sentence}</span>
      {notice.ways.map((way, i) => {
        const adds = notice.kind === "Variants";
        const readSo =
          i === 0 &&
          (notice.kind === "LooseWords" || notice.kind === "MixedOperators" || notice.kind === "LowerCaseNot");
        const taken = way.text === text || readSo;
        return (
          <button
            key={way.label}
            type="button"
            aria-pressed={taken}
            onClick={() => onTake(way.text)}
            className={`rounded-full border px-2 py-px ${taken ? "border-pine bg-mist text-ink" : "border-dashed border-edge hover:border-solid hover:border-ink"}`}
          >
            {way.label}{" "}
            <b className="font-semibold text-ink">
              {adds && "+"}
              {count(way.count)}
            </b>
          </button>
        );
      })}
    </p>
  );
}
