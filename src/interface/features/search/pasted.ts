/** What a reference begins with in RIS, in BibTeX and in CSL-JSON. */
const filed = /^\s*TY\s{1,2}-\s|^\s*@[A-Za-z]{3,20}\s*[{(][^@]*=|^\s*\[\s*\{/m;

/** Whether a text that is pasted into the line is a list to be found, and no question. */
export const isPastedList = (text: string): boolean =>
  filed.test(text) ||
  (text.split(/\r?\n/).filter((l) => l.trim() !== "").length > 1 && !/\b(AND|OR|NOT|NEAR)\b/.test(text));

// The server reads texts of 100,000 characters, and as many of them as a request of 4 MB holds.
const longestLine = 90_000;

/** A text in lines that can be sent: JSON that stands on one line is spread out, anything else so long is cut at blanks. */
export const linesOf = (text: string): string[] => {
  const lines = text.split(/\r?\n/);
  if (lines.every((l) => l.length <= longestLine)) return lines;
  try {
    return JSON.stringify(JSON.parse(text), null, 1).split("\n");
  } catch {
    return lines.flatMap(cut);
  }
};

const cut = (line: string): string[] => {
  const parts: string[] = [];
  let from = 0;
  while (line.length - from > longestLine) {
    const blank = line.lastIndexOf(" ", from + longestLine);
    const to = blank > from ? blank : from + longestLine;
    parts.push(line.slice(from, to));
    from = to;
  }
  return [...parts, line.slice(from)];
};
