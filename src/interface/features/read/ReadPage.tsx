import "pdfjs-dist/web/pdf_viewer.css";
import { useCallback, useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import { useKeys } from "../../ui/keys";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { count } from "../../ui/numbers";
import { DecisionSheets, type DecisionSheet } from "../../set/decide/DecisionSheets";
import { useDecide } from "../../set/decide/useDecisions";
import { fileOf, useText } from "../../set/work/useGather";
import { usePlace } from "../../set/useSet";
import { useFollow } from "../../set/useTrail";
import { WorkPane } from "../../set/work/WorkPane";
import { usePdfViewer, type PdfViewerHandle } from "./usePdfViewer";
import { Press } from "../../ui/Press";
import { lineFor } from "../../set/useAsk";
import { Input, Select } from "../../ui/Input";

/** The columns of the page: outline and text, with the record beside them when it is open. */
const columns = {
  alone: "grid-cols-[190px_minmax(0,1fr)] max-[1150px]:grid-cols-[minmax(0,1fr)]",
  withRecord: [
    "grid-cols-[190px_minmax(0,1fr)_380px] max-[1150px]:grid-cols-[minmax(0,1fr)_340px]",
    "max-sm:grid-cols-[minmax(0,1fr)] max-sm:grid-rows-[auto_minmax(0,1fr)]",
  ].join(" "),
};

/** Read: the text with its outline at the left and its record at the right. Page and zoom stand in the address. */
export default function ReadPage({ reviewId, textId }: { reviewId: number; textId: number }) {
  const text = useText(reviewId, textId);
  if (text.error)
    return (
      <div className="p-8">
        <Fault error={text.error} />
        <Link to={`/r/${reviewId}/gather`} className="mt-4 inline-block underline underline-offset-2">
          To Gather
        </Link>
      </div>
    );
  return <Reader reviewId={reviewId} textId={textId} />;
}

function Reader({ reviewId, textId }: { reviewId: number; textId: number }) {
  const text = useText(reviewId, textId).data;
  const [params, setParams] = useSearchParams();
  const container = useRef<HTMLDivElement>(null);
  const findRef = useRef<HTMLInputElement>(null);
  const place = usePlace(reviewId, 0);
  const decide = useDecide(place);
  const follow = useFollow(reviewId);
  const [sheet, setSheet] = useState<DecisionSheet>(null);
  const [recordOpen, setRecordOpen] = useState(() => window.innerWidth > 1100);
  const onMove = useCallback(
    (page: number, zoom: string) =>
      setParams(
        (old) => {
          const p = new URLSearchParams(old);
          p.set("page", String(page));
          p.set("zoom", zoom);
          return p;
        },
        { replace: true },
      ),
    [setParams],
  );
  const viewer = usePdfViewer(
    fileOf(reviewId, textId),
    container,
    { page: Number(params.get("page") ?? 1) || 1, scale: params.get("zoom") ?? "page-width" },
    onMove,
  );
  useKeys({
    "/": () => {
      findRef.current?.focus();
      findRef.current?.select();
      return true;
    },
    j: () => {
      viewer.goTo(viewer.page + 1);
      return true;
    },
    k: () => {
      viewer.goTo(viewer.page - 1);
      return true;
    },
    p: () => {
      if (!text) return false;
      decide.one(text.workId, "Keep");
      return true;
    },
    x: () => {
      if (!text) return false;
      setSheet({ kind: "aside", workId: text.workId });
      return true;
    },
    t: () => {
      if (!text) return false;
      setSheet({ kind: "tag", workId: text.workId });
      return true;
    },
  });
  // A file without an outline of its own gets one from its headings.
  const outline = viewer.outline?.length
    ? viewer.outline
    : (text?.headings ?? []).map((h) => ({ title: h.text, depth: 0, go: () => viewer.goTo(h.page), page: h.page }));
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
                {"page" in h && <span className="text-faint">{String(h.page)}</span>}
              </Press>
            </li>
          ))}
        </ol>
      </nav>
      <section aria-label="Text" className="flex min-h-0 min-w-0 flex-col">
        <Toolbar
          viewer={viewer}
          findRef={findRef}
          recordOpen={recordOpen}
          onRecord={() => setRecordOpen((o) => !o)}
          file={`${fileOf(reviewId, textId)}?download=true`}
          fileName={text?.fileName ?? ""}
          version={text?.version ?? null}
        />
        <div className={`relative min-h-0 flex-1 bg-soft ${recordOpen ? "max-sm:hidden" : ""}`}>
          {viewer.state === "fault" && (
            <div className="p-8">
              <Fault error={new Error("This text cannot be shown.")} />
            </div>
          )}
          <div ref={container} tabIndex={0} role="region" aria-label="Pages" className="absolute inset-0 overflow-auto">
            <div className="pdfViewer" />
          </div>
        </div>
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

const zooms: [string, string][] = [
  ["page-width", "page width"],
  ["page-fit", "whole page"],
  ["0.75", "75 %"],
  ["1", "100 %"],
  ["1.25", "125 %"],
  ["1.5", "150 %"],
  ["2", "200 %"],
];

function Toolbar({
  viewer,
  findRef,
  recordOpen,
  onRecord,
  file,
  fileName,
  version,
}: {
  viewer: PdfViewerHandle;
  findRef: React.RefObject<HTMLInputElement | null>;
  recordOpen: boolean;
  onRecord: () => void;
  file: string;
  fileName: string;
  version: string | null;
}) {
  const [words, setWords] = useState("");
  const known = zooms.some(([value]) => value === viewer.scale);
  return (
    <div
      role="toolbar"
      aria-label="Reading"
      className={`flex h-11 shrink-0 items-center gap-3 border-b border-line px-3 max-sm:h-auto max-sm:flex-wrap
        max-sm:gap-y-1.5 max-sm:py-1.5`}
    >
      <form
        className="flex items-center gap-1 text-[13px]"
        onSubmit={(e) => {
          e.preventDefault();
          viewer.goTo(Number(new FormData(e.currentTarget).get("page")) || 1);
        }}
      >
        <label htmlFor="page" className="text-quiet">
          page
        </label>
        <Input
          key={viewer.page}
          id="page"
          name="page"
          defaultValue={viewer.page}
          inputMode="numeric"
          className="h-7 w-11 text-right"
        />
        <span className="whitespace-nowrap text-quiet">of {count(viewer.pages)}</span>
      </form>
      <Select
        aria-label="Zoom"
        value={viewer.scale}
        onChange={(e) => viewer.setScale(e.target.value)}
        className="h-7 text-[13px] max-sm:w-[92px]"
      >
        {!known && <option value={viewer.scale}>{viewer.percent} %</option>}
        {zooms.map(([value, label]) => (
          <option key={value} value={value}>
            {label}
          </option>
        ))}
      </Select>
      <form
        role="search"
        className="flex min-w-0 flex-1 items-center gap-2 max-sm:order-last max-sm:basis-full"
        onSubmit={(e) => {
          e.preventDefault();
          viewer.find(words, true);
        }}
      >
        <Input
          ref={findRef}
          value={words}
          onChange={(e) => {
            setWords(e.target.value);
            viewer.find(e.target.value, false);
          }}
          onKeyDown={(e) => {
            if (e.key === "Enter" && e.shiftKey) {
              e.preventDefault();
              viewer.find(words, true, true);
            }
          }}
          aria-label="Find in the text"
          placeholder="Find in the text ( / )"
          spellCheck={false}
          className="h-7 max-w-[260px] min-w-[130px] flex-1 max-sm:max-w-none text-[13px]"
        />
        {words !== "" && viewer.found && (
          <span role="status" className="text-[12.5px] whitespace-nowrap text-quiet">
            {viewer.found.total === 0 ? (
              viewer.found.pending ? (
                "…"
              ) : (
                "not found"
              )
            ) : (
              <>
                <b className="text-ink">{count(viewer.found.at)}</b> of {count(viewer.found.total)}
              </>
            )}
          </span>
        )}
      </form>
      {version && <span className="text-[12.5px] whitespace-nowrap text-quiet max-[1350px]:hidden">{version}</span>}
      <a
        href={file}
        title={fileName}
        className="text-[12.5px] whitespace-nowrap underline decoration-line underline-offset-2 hover:decoration-ink"
      >
        save
      </a>
      <Button className="h-7" aria-pressed={recordOpen} onClick={onRecord}>
        Record
      </Button>
    </div>
  );
}
