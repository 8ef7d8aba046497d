import { useState, type RefObject } from "react";
import type { Dto } from "../../api/client";
import { count } from "../../ui/numbers";
import { GoesOn } from "./GoesOn";
import { Notice } from "./Notice";
import { Offers } from "./Offers";
import { isPastedList } from "./pasted";
import { useCompletions, type Completion } from "./useCompletions";
import { Press } from "../../ui/Press";
import { TextButton } from "../../ui/TextButton";

interface Props {
  reviewId: number;
  stepId: number;
  line: RefObject<HTMLInputElement | null>;
  text: string;
  onText: (text: string) => void;
  /** Searches a line; in other databases than those chosen where they are told. */
  onSearch: (text: string, databases: readonly number[] | null) => void;
  reading: Dto<"ReadingDto"> | null;
  late: boolean;
  editing: boolean;
  view: Dto<"StepViewDto"> | null | undefined;
  boardOpen: boolean;
  onFold: () => void;
  wordsOpen: boolean;
  /** The groups that use the words of the line in different company, those worth a word. */
  senses: readonly Dto<"SenseDto">[];
  onSenses: () => void;
  /** Opens or closes the words beside the list; null where there is no list. */
  onWords: (() => void) | null;
  onOpenWork: (id: number) => void;
  /** A list of references was pasted, or one stands in the line. */
  onReferences: (text: string) => void;
  /** The line names a work that is not here; null where nothing may be added. */
  onAdd: ((text: string) => void) | null;
}

/** Whether a word is said to be misspelt that may still be being written. */
const isBegun = (n: Dto<"NoticeDto">, text: string) => n.kind === "NearWords" && n.start + n.length >= text.length;

/** The line, and under it what a person should know about how it is read. */
export function SearchLine({
  reviewId,
  stepId,
  line,
  text,
  onText,
  onSearch,
  reading,
  late,
  editing,
  view,
  boardOpen,
  onFold,
  wordsOpen,
  senses,
  onSenses,
  onWords,
  onOpenWork,
  onReferences,
  onAdd,
}: Props) {
  const [caret, setCaret] = useState<number | null>(null);
  const goesOn = useCompletions(reviewId, stepId, text, editing ? caret : null);
  const take = (one: Completion) => {
    onText(one.text);
    // The caret follows once the line shows the new text; nothing is offered again before a letter is typed.
    setCaret(null);
    requestAnimationFrame(() => line.current?.setSelectionRange(one.caret, one.caret));
  };
  const keys = (e: React.KeyboardEvent<HTMLInputElement>) => {
    const { list, at, point } = goesOn;
    const pointed = list[at];
    if (e.key === "/" && text.trim() === "") {
      // The key that goes to the line, pressed by somebody who is there already; no word begins with it.
      e.preventDefault();
    } else if (e.key === "Escape") {
      if (pointed) point(-1);
      else e.currentTarget.blur();
    } else if (e.key === "ArrowDown" && list.length > 0) {
      point(pointed ? (at + 1) % list.length : 0);
      e.preventDefault();
    } else if (pointed && (e.key === "ArrowRight" || e.key === "ArrowLeft" || e.key === "ArrowUp")) {
      point(e.key === "ArrowUp" ? -1 : (at + (e.key === "ArrowRight" ? 1 : list.length - 1)) % list.length);
      e.preventDefault();
    } else if (pointed && e.key === "Enter") {
      take(pointed);
      e.preventDefault();
    }
  };
  const problem = reading?.problems[0];
  return (
    <section aria-label="Search line" className="shrink-0">
      <form
        role="search"
        className="flex items-center gap-2.5 px-[18px] py-1.5 max-sm:gap-1.5 max-sm:px-3"
        onSubmit={(e) => {
          e.preventDefault();
          onSearch(text, null);
        }}
      >
        <span aria-hidden="true" className="text-[15px] font-bold text-pine">
          /
        </span>
        <input
          ref={line}
          value={text}
          onChange={(e) => {
            onText(e.target.value.replace(/^\s*\/+/, ""));
            setCaret(e.target.selectionStart);
          }}
          onKeyDown={keys}
          onPaste={(e) => {
            // In one line a list would run together.
            const pasted = e.clipboardData.getData("text");
            if (!isPastedList(pasted)) return;
            e.preventDefault();
            onReferences(pasted);
          }}
          role="combobox"
          aria-expanded={goesOn.list.length > 0}
          aria-controls="line-goes-on"
          aria-autocomplete="list"
          aria-activedescendant={goesOn.at >= 0 ? `line-goes-on-${goesOn.at}` : undefined}
          aria-label="Search the databases"
          aria-invalid={problem ? true : undefined}
          aria-describedby="line-reading"
          placeholder="Words, a name, a title, a DOI or address, references"
          spellCheck={false}
          autoComplete="off"
          className={`h-8 min-w-0 flex-1 rounded-md border bg-raised px-2.5 text-[14px] outline-offset-0
            ${problem ? "border-aside" : editing ? "border-pine" : "border-line hover:border-edge"}`}
        />
        <CountAhead reading={reading} late={late} editing={editing} view={view} />
        <Press
          onClick={onFold}
          aria-expanded={boardOpen}
          className={`h-7 rounded-full border border-edge bg-raised px-2.5 text-[12px] whitespace-nowrap text-quiet
            hover:border-ink max-sm:hidden`}
        >
          {boardOpen ? "fold" : "board"} <kbd className="ml-0.5 rounded border border-line px-1 text-[11.5px]">B</kbd>
        </Press>
        {onWords && (
          <Press
            onClick={onWords}
            aria-expanded={wordsOpen}
            title="Terms that the kept works use, and others to exclude"
            className={`h-7 rounded-full border border-edge px-2.5 text-[12px] whitespace-nowrap text-quiet
              hover:border-ink ${wordsOpen ? "bg-mist" : "bg-raised"}`}
          >
            words <kbd className="ml-0.5 rounded border border-line px-1 text-[11.5px] max-sm:hidden">W</kbd>
          </Press>
        )}
      </form>
      {/* Its room is kept while the line is written, so that nothing under it jumps. */}
      {editing && (
        <div className="h-[27px] px-[18px]">
          <GoesOn list={goesOn.list} at={goesOn.at} onTake={take} />
        </div>
      )}
      <div id="line-reading" aria-live="polite" className="max-h-[30vh] overflow-y-auto px-[18px] max-sm:px-3">
        {reading && reading.direct.length > 0 && (
          <p className="mb-1.5 flex flex-wrap items-baseline gap-x-3 gap-y-1 text-[13px]">
            <span className="text-quiet">
              {reading.direct.length === 1
                ? `One work ${reading.direct[0]?.why ?? ""}:`
                : `${count(reading.direct.length)} works ${(reading.direct[0]?.why ?? "").replace(/^has /, "have ")}:`}
            </span>
            {reading.direct.map((d) => (
              <span key={d.workId} className="flex min-w-0 items-baseline gap-1.5">
                <Press
                  onClick={() => onOpenWork(d.workId)}
                  className={`min-w-0 truncate font-serif text-[14px] font-semibold underline decoration-line
                    underline-offset-2 hover:decoration-ink`}
                >
                  {d.title}
                </Press>
                <span className="text-quiet">{[d.person, d.year].filter(Boolean).join(" ")}</span>
              </span>
            ))}
          </p>
        )}
        {editing && reading?.isReference && (
          <p className="mb-1.5 text-[13px]">
            <span className="text-quiet">This looks like a reference.</span>{" "}
            <TextButton onClick={() => onReferences(text)} className="font-semibold">
              Find its work
            </TextButton>
          </p>
        )}
        {problem && (
          <p className="mb-1.5 text-[13px] text-aside">
            {problem.sentence}{" "}
            {problem.repairText !== null && (
              <TextButton onClick={() => onText(problem.repairText ?? text)} className="font-semibold">
                {problem.repairLabel}
              </TextButton>
            )}
          </p>
        )}
        <Offers folded={!editing} key={editing ? "editing" : text}>
          {!editing && senses.length > 1 && (
            <p className="mb-1.5 flex flex-wrap items-center gap-x-2 gap-y-1 text-[12.5px] text-quiet">
              <span>These words have different meanings here:</span>
              {senses.slice(0, 4).map((s) => (
                <span key={s.works[0]}>
                  {s.terms.slice(0, 2).join(", ")} <b className="font-semibold text-ink">{count(s.works.length)}</b>
                </span>
              ))}
              <TextButton className="min-h-6" onClick={onSenses}>
                see the groups
              </TextButton>
            </p>
          )}
          {reading?.notices
            .filter((n) => !(editing && isBegun(n, text)))
            .map((n) => (
              <Notice
                key={`${n.kind} ${n.start}`}
                notice={n}
                text={text}
                onTake={onSearch}
                onAdd={onAdd && (() => onAdd(text))}
                reviewId={reviewId}
                stepId={stepId}
              />
            ))}
        </Offers>
      </div>
    </section>
  );
}

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
              {reading.inView === 1 ? "work" : "works"}
              {!reading.isSound && " so far"}
            </span>
            {reading.isSound && (
              <Press type="submit" className="h-7 rounded-md bg-pine px-2.5 font-semibold text-onpine">
                Search <kbd className="font-normal opacity-80 max-sm:hidden">Enter</kbd>
              </Press>
            )}
          </>
        )}
      </span>
    );
  if (!view || view.state.expression === "") return null;
  const on = view.ledger.databases.filter((d) => d.chosen && d.databaseId > 0);
  return (
    <span className="text-[12.5px] whitespace-nowrap text-quiet max-[1150px]:hidden">
      {on.length === 1 ? (on[0]?.name ?? "") : `${on.length} databases`}, {count(view.ledger.duplicates)}{" "}
      {view.ledger.duplicates === 1 ? "duplicate" : "duplicates"} joined
      {view.ledger.byTexts !== null && `, ${count(view.ledger.byTexts)} by gathered texts alone`}
    </span>
  );
}
