/** What a reference begins with in RIS, in BibTeX and in CSL-JSON. */
const filed = /^\s*TY\s{1,2}-\s|^\s*@[A-Za-z]{3,20}\s*[{(][^@]*=|^\s*\[\s*\{/m;

/** Whether a text that is pasted into the line is a list to be found, and no question. */
export const isPastedList = (text: string): boolean =>
  filed.test(text) ||
  (text.split(/\r?\n/).filter((l) => l.trim() !== "").length > 1 && !/\b(AND|OR|NOT|NEAR)\b/.test(text));
