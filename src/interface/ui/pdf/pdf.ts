import * as pdfjs from "pdfjs-dist";
import worker from "pdfjs-dist/build/pdf.worker.min.mjs?url";

pdfjs.GlobalWorkerOptions.workerSrc = worker;

/** Opens a PDF. Everything it may need ships with the application; scripts in it are not run. */
export function openPdf(file: string): pdfjs.PDFDocumentLoadingTask {
  return pdfjs.getDocument({
    url: file,
    cMapUrl: "/pdf/cmaps/",
    cMapPacked: true,
    standardFontDataUrl: "/pdf/standard_fonts/",
    wasmUrl: "/pdf/wasm/",
    iccUrl: "/pdf/iccs/",
    useSystemFonts: false,
    isEvalSupported: false,
    enableXfa: false,
  });
}

export { pdfjs };
