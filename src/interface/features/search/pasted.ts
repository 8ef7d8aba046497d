/** Whether a text of several lines that is pasted into the line is a list to be found, and no question. */
export const isPastedList = (text: string): boolean =>
  text.split(/\r?\n/).filter((l) => l.trim() !== "").length > 1 && !/\b(AND|OR|NOT|NEAR)\b/.test(text);
