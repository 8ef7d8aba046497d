/** Whether a text of several lines that is pasted into the line is a list to be found, and no question. */
export const isPastedList = (text: string): boolean =>
  text.split(/\r?\n/).filter((l) => l.trim() !== "").length > 1 && !/\b(AND|OR|NOT|NEAR)\b/.test(text);

/** Whether a line looks like one reference as it is printed: long, with a year and the stops of one, and no operators. */
export const isReference = (line: string): boolean =>
  line.length >= 50 &&
  /(^|[^\d])(1[89]|20)\d\d([^\d]|$)/.test(line) &&
  (line.match(/[.,;:]/g)?.length ?? 0) >= 4 &&
  !/\b(AND|OR|NOT|NEAR)\b|\w:\(/.test(line);
