import { forwardRef, useEffect, useImperativeHandle, useRef } from "react";

/**
 * An article as the server made it readable: it has left nothing in it but plain elements (ReadableText), so that it is set
 * into the page as it is. Links inside it lead to their places in it.
 */
export const Article = forwardRef<HTMLDivElement, { html: string; className?: string }>(function Article(
  { html, className = "" },
  ref,
) {
  const own = useRef<HTMLDivElement>(null);
  useImperativeHandle(ref, () => own.current as HTMLDivElement, []);
  useEffect(() => {
    const article = own.current;
    const follow = (e: MouseEvent) => {
      const link = e.target instanceof Element ? e.target.closest("a[href^='#']") : null;
      if (!link) return;
      // The address of the page says which work is read; a place in the text would take that away.
      e.preventDefault();
      goWithin(article, decodeURIComponent(link.getAttribute("href")?.slice(1) ?? ""));
    };
    article?.addEventListener("click", follow);
    return () => article?.removeEventListener("click", follow);
  }, []);
  return <div ref={own} className={`article ${className}`} dangerouslySetInnerHTML={{ __html: html }} />;
});

/** Goes to a place in an article. */
export function goWithin(article: HTMLElement | null, id: string) {
  article?.querySelector(`[id="${CSS.escape(id)}"]`)?.scrollIntoView({ block: "start" });
}
