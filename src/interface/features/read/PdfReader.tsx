import "pdfjs-dist/web/pdf_viewer.css";
import { useCallback, useRef, useState } from "react";
import { useSearchParams } from "react-router";
import type { Dto } from "../../api/client";
import { fileOf } from "../../set/work/useGather";
import { Fault } from "../../ui/Fault";
import { Input, Select } from "../../ui/Input";
import { useKeys } from "../../ui/keys";
import { count } from "../../ui/numbers";
import { FindIn } from "./FindIn";
import { ReaderFrame } from "./ReaderFrame";
import { ToolbarEnd, toolbar } from "./ToolbarEnd";
import { usePdfViewer, type PdfViewerHandle } from "./usePdfViewer";

/** A PDF, page by page. Page and zoom stand in the address. */
export function PdfReader({ reviewId, text }: { reviewId: number; text: Dto<"TextDetailDto"> }) {
  const [params, setParams] = useSearchParams();
  const container = useRef<HTMLDivElement>(null);
  const findRef = useRef<HTMLInputElement>(null);
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
    fileOf(reviewId, text.id),
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
  });
  // A file without an outline of its own gets one from its headings.
  const outline = viewer.outline?.length
    ? viewer.outline
    : text.headings.map((h) => ({ title: h.text, depth: 0, go: () => viewer.goTo(h.page), page: h.page }));
  return (
    <ReaderFrame reviewId={reviewId} text={text} outline={outline}>
      {(record) => (
        <>
          <Toolbar
            viewer={viewer}
            findRef={findRef}
            record={record}
            file={`${fileOf(reviewId, text.id)}?download=true`}
            fileName={text.fileName}
            version={text.version}
            reviewId={reviewId}
            textId={text.id}
          />
          <div className={`relative min-h-0 flex-1 bg-soft ${record.open ? "max-sm:hidden" : ""}`}>
            {viewer.state === "fault" && (
              <div className="p-8">
                <Fault error={new Error("This text cannot be shown.")} />
              </div>
            )}
            <div
              ref={container}
              tabIndex={0}
              role="region"
              aria-label="Pages"
              className="absolute inset-0 overflow-auto"
            >
              <div className="pdfViewer" />
            </div>
          </div>
        </>
      )}
    </ReaderFrame>
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
  record,
  file,
  fileName,
  version,
  reviewId,
  textId,
}: {
  viewer: PdfViewerHandle;
  findRef: React.RefObject<HTMLInputElement | null>;
  record: { open: boolean; flip: () => void };
  file: string;
  fileName: string;
  version: string | null;
  reviewId: number;
  textId: number;
}) {
  const [words, setWords] = useState("");
  const known = zooms.some(([value]) => value === viewer.scale);
  return (
    <div role="toolbar" aria-label="Reading" className={toolbar}>
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
      <FindIn
        inputRef={findRef}
        words={words}
        onWords={(w) => {
          setWords(w);
          viewer.find(w, false);
        }}
        onNext={(back) => viewer.find(words, true, back)}
        found={viewer.found}
      />
      <ToolbarEnd
        version={version}
        file={file}
        fileName={fileName}
        record={record}
        reviewId={reviewId}
        textId={textId}
      />
    </div>
  );
}
