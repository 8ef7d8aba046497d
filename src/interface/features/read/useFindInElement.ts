import { useEffect, useState, type RefObject } from "react";
import type { Found } from "./FindIn";

/** Names of the highlights, as the style sheet knows them. */
const all = "found-in-text";
const current = "found-here";

/**
 * Finds words in an element and highlights them, without changing the element. Letters count alike, large or small; words may
 * run over from one inline element into the next.
 * @param element where to look
 * @param content changes when what stands in the element does
 */
export function useFindInElement(element: RefObject<HTMLElement | null>, content: string | undefined) {
  const [words, setWords] = useState("");
  const [found, setFound] = useState<Range[]>([]);
  const [at, setAt] = useState(0);
  useEffect(() => {
    const ranges = element.current && words.trim() !== "" ? rangesOf(element.current, words) : [];
    setFound(ranges);
    setAt(0);
  }, [element, content, words]);
  useEffect(() => {
    if (!("highlights" in CSS)) return undefined;
    CSS.highlights.set(all, new Highlight(...found));
    const here = found[at];
    if (here) {
      CSS.highlights.set(current, new Highlight(here));
      here.startContainer.parentElement?.scrollIntoView({ block: "center" });
    }
    return () => {
      CSS.highlights.delete(all);
      CSS.highlights.delete(current);
    };
  }, [found, at]);
  const told: Found | null = words === "" ? null : { at: at + 1, total: found.length, pending: false };
  return {
    words,
    setWords,
    found: told,
    next: (back: boolean) => {
      if (found.length > 0) setAt((i) => (i + (back ? found.length - 1 : 1)) % found.length);
    },
  };
}

/** Where words stand in an element, in order. */
export function rangesOf(element: HTMLElement, words: string): Range[] {
  const walker = document.createTreeWalker(element, NodeFilter.SHOW_TEXT);
  const nodes: { node: Text; from: number }[] = [];
  let text = "";
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    nodes.push({ node: node as Text, from: text.length });
    text += (node as Text).data;
  }
  const [where, what] = [text.toLocaleLowerCase(), words.toLocaleLowerCase()];
  // A letter that is longer in lower case would move all behind it; then letters are taken as they are.
  const hay = where.length === text.length ? where : text;
  const ranges: Range[] = [];
  let last = 0;
  const nodeAt = (offset: number) => {
    while (last + 1 < nodes.length && (nodes[last + 1]?.from ?? Infinity) <= offset) last++;
    return nodes[last];
  };
  for (let i = hay.indexOf(what); i >= 0 && ranges.length < 5000; i = hay.indexOf(what, i + what.length)) {
    const begin = nodeAt(i);
    const end = nodeAt(i + what.length - 1);
    if (!begin || !end) break;
    const range = document.createRange();
    range.setStart(begin.node, i - begin.from);
    range.setEnd(end.node, i + what.length - end.from);
    ranges.push(range);
  }
  return ranges;
}
