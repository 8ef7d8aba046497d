import { useState, type ReactNode } from "react";
import type { Dto } from "../../api/client";
import { DecisionSheets, type DecisionSheet } from "../../set/decide/DecisionSheets";
import { useDecide } from "../../set/decide/useDecisions";
import { lineFor } from "../../set/useAsk";
import { usePlace } from "../../set/useSet";
import { useFollow } from "../../set/useTrail";
import { WorkPane } from "../../set/work/WorkPane";
import { useKeys } from "../../ui/keys";
import { Press } from "../../ui/Press";

/** The columns of the page: outline and text, with the record beside them when it is open. */
const columns = {
  alone: "grid-cols-[190px_minmax(0,1fr)] max-[1150px]:grid-cols-[minmax(0,1fr)]",
  withRecord: [
    "grid-cols-[190px_minmax(0,1fr)_380px] max-[1150px]:grid-cols-[minmax(0,1fr)_340px]",
    "max-sm:grid-cols-[minmax(0,1fr)] max-sm:grid-rows-[auto_minmax(0,1fr)]",
  ].join(" "),
};

/** A heading that one can go to. */
export interface OutlineEntry {
  title: string;
  depth: number;
  go: () => void;
  page?: number;
}

/** A text with its outline at the left and its record at the right, whatever its format. */
export function ReaderFrame({
  reviewId,
  text,
  outline,
  children,
}: {
  reviewId: number;
  text: Dto<"TextDetailDto"> | undefined;
  outline: readonly OutlineEntry[];
  /** The text and its tools, told whether the record is open. */
  children: (record: { open: boolean; flip: () => void }) => ReactNode;
}) {
  const place = usePlace(reviewId, 0);
  const decide = useDecide(place);
  const follow = useFollow(reviewId);
  const [sheet, setSheet] = useState<DecisionSheet>(null);
  const [recordOpen, setRecordOpen] = useState(() => window.innerWidth > 1100);
  const onWork = (act: (id: number) => void) => () => {
    if (!text) return false;
    act(text.workId);
    return true;
  };
  useKeys({
    p: onWork((id) => decide.one(id, "Keep")),
    x: onWork((id) => setSheet({ kind: "aside", workId: id })),
    t: onWork((id) => setSheet({ kind: "tag", workId: id })),
  });
  return (
    <div className={`grid min-h-0 flex-1 ${recordOpen ? columns.withRecord : columns.alone}`}>
      <nav aria-label="Outline" className="min-h-0 overflow-y-auto border-r border-line py-3 max-[1150px]:hidden">
        <h2 className="px-4 pb-1 text-[12.5px] font-semibold">Outline</h2>
        {outline.length === 0 && <p className="px-4 text-[12.5px] text-quiet">No headings were found.</p>}
        <ol>
          {outline.map((h, i) => (
            <li key={i}>
              <Press
                onClick={h.go}
                className="flex w-full justify-between gap-2 py-1 pr-3 text-left text-[12.5px] hover:bg-soft"
                style={{ paddingLeft: 16 + h.depth * 12 }}
              >
                <span className="min-w-0 break-words">{h.title}</span>
                {h.page !== undefined && <span className="text-faint">{h.page}</span>}
              </Press>
            </li>
          ))}
        </ol>
      </nav>
      <section aria-label="Text" className="flex min-h-0 min-w-0 flex-col">
        {children({ open: recordOpen, flip: () => setRecordOpen((o) => !o) })}
      </section>
      {recordOpen && text && (
        <WorkPane
          place={place}
          workId={text.workId}
          decide={decide}
          onAside={(id) => setSheet({ kind: "aside", workId: id })}
          onTag={(id) => setSheet({ kind: "tag", workId: id })}
          ask={{
            narrow: null,
            anew: (asked) =>
              window.location.assign(`/r/${reviewId}/search?step=0&say=${encodeURIComponent(lineFor(asked))}`),
          }}
          follow={follow}
        />
      )}
      <DecisionSheets
        reviewId={reviewId}
        stepId={0}
        workId={text?.workId ?? null}
        open={sheet}
        close={() => setSheet(null)}
        decide={decide}
      />
    </div>
  );
}
