import type { PDFDocumentProxy } from "pdfjs-dist";
import { EventBus, LinkTarget, PDFFindController, PDFLinkService, PDFViewer } from "pdfjs-dist/web/pdf_viewer.mjs";
import { useEffect, useRef, useState, type RefObject } from "react";
import { openPdf } from "../../ui/pdf/pdf";
import type { Found } from "./FindIn";

/** A heading of the document: from its own outline, or from its text. */
export interface OutlineItem {
  title: string;
  depth: number;
  go: () => void;
}

export interface PdfViewerHandle {
  state: "loading" | "ready" | "fault";
  pages: number;
  page: number;
  scale: string;
  percent: number;
  outline: OutlineItem[] | null;
  found: Found | null;
  goTo: (page: number) => void;
  setScale: (scale: string) => void;
  find: (words: string, again: boolean, back?: boolean) => void;
}

interface OwnOutline {
  title: string;
  dest: string | unknown[] | null;
  items: OwnOutline[];
}

/**
 * Runs pdf.js's own viewer parts in a container: pages are drawn as they come near, text can be selected and searched. Page and zoom are
 * told to the caller as they change, and begin where the caller says.
 */
export function usePdfViewer(
  file: string,
  container: RefObject<HTMLDivElement | null>,
  start: { page: number; scale: string },
  onMove: (page: number, scale: string) => void,
): PdfViewerHandle {
  const [state, setState] = useState<PdfViewerHandle["state"]>("loading");
  const [pages, setPages] = useState(0);
  const [page, setPage] = useState(start.page);
  const [scale, setScaleValue] = useState(start.scale);
  const [percent, setPercent] = useState(100);
  const [outline, setOutline] = useState<OutlineItem[] | null>(null);
  const [found, setFound] = useState<Found | null>(null);
  const parts = useRef<{ viewer: PDFViewer; bus: EventBus } | null>(null);
  const begin = useRef(start);
  const moved = useRef(onMove);
  useEffect(() => {
    moved.current = onMove;
  });

  useEffect(() => {
    const box = container.current;
    if (!box) return;
    const bus = new EventBus();
    const links = new PDFLinkService({ eventBus: bus, externalLinkTarget: LinkTarget.BLANK });
    const finder = new PDFFindController({ linkService: links, eventBus: bus });
    const viewer = new PDFViewer({ container: box, eventBus: bus, linkService: links, findController: finder });
    links.setViewer(viewer);
    parts.current = { viewer, bus };
    const run = { gone: false };
    bus.on("pagesinit", () => {
      viewer.currentScaleValue = begin.current.scale;
      if (begin.current.page > 1) viewer.currentPageNumber = Math.min(begin.current.page, viewer.pagesCount);
      setState("ready");
    });
    bus.on("pagechanging", (e: { pageNumber: number }) => {
      setPage(e.pageNumber);
      moved.current(e.pageNumber, viewer.currentScaleValue);
    });
    bus.on("scalechanging", (e: { scale: number; presetValue?: string }) => {
      const value = e.presetValue ?? String(Math.round(e.scale * 100) / 100);
      setScaleValue(value);
      setPercent(Math.round(e.scale * 100));
      moved.current(viewer.currentPageNumber, value);
    });
    const tell = (e: { matchesCount: { current: number; total: number }; state?: number }) =>
      setFound({ at: e.matchesCount.current, total: e.matchesCount.total, pending: e.state === 3 });
    bus.on("updatefindmatchescount", tell);
    bus.on("updatefindcontrolstate", tell);
    const task = openPdf(file);
    task.promise.then(
      async (document: PDFDocumentProxy) => {
        if (run.gone) return;
        setPages(document.numPages);
        viewer.setDocument(document);
        links.setDocument(document);
        const own = (await document.getOutline()) as OwnOutline[] | null;
        const flat = (items: OwnOutline[], depth: number): OutlineItem[] =>
          items.flatMap((i) => [
            { title: i.title, depth, go: () => void (i.dest && links.goToDestination(i.dest)) },
            ...flat(i.items, depth + 1),
          ]);
        setOutline(own ? flat(own, 0) : []);
      },
      () => setState("fault"),
    );
    return () => {
      run.gone = true;
      viewer.cleanup();
      void task.destroy();
      parts.current = null;
    };
  }, [file, container]);

  return {
    state,
    pages,
    page,
    scale,
    percent,
    outline,
    found,
    goTo: (n) => {
      if (parts.current)
        parts.current.viewer.currentPageNumber = Math.min(Math.max(1, n), parts.current.viewer.pagesCount);
    },
    setScale: (value) => {
      if (parts.current) parts.current.viewer.currentScaleValue = value;
    },
    find: (words, again, back = false) => {
      if (words === "") setFound(null);
      parts.current?.bus.dispatch("find", {
        source: null,
        type: again ? "again" : "",
        query: words,
        caseSensitive: false,
        entireWord: false,
        highlightAll: true,
        findPrevious: back,
        matchDiacritics: false,
      });
    },
  };
}
