import type { Dto } from "../../api/client";

type Format = Dto<"TextDto">["format"];

/** What a format without pages is called where their number would stand. */
const formatWords: Record<Format, string> = {
  Pdf: "PDF",
  Html: "web page",
  Jats: "JATS XML",
  Plain: "plain text",
  Epub: "EPUB",
};

/** How long a text is: its pages, or what it is where it has none. */
export const extentOf = ({ format, pages }: { format: Format; pages: number }): string =>
  format === "Pdf" ? `${pages} ${pages === 1 ? "page" : "pages"}` : formatWords[format];
