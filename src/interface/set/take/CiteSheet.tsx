import { useState } from "react";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Sheet } from "../../ui/Sheet";
import { useSay, useSayFault } from "../../ui/Toasts";
import { count } from "../../ui/numbers";
import { useLate } from "../useSet";
import { copyReferences, useBibliography, useStyleChoice, useStyles, type Cited } from "./useCite";
import { Input, Select } from "../../ui/Input";

/** References of one work, of several, or of a set, in any style that ships; to copy or to save. */
export function CiteSheet({
  reviewId,
  cited,
  open,
  close,
}: {
  reviewId: number;
  cited: Cited;
  open: boolean;
  close: () => void;
}) {
  return (
    <Sheet open={open} onOpenChange={close} width={820} title="Cite">
      {open && <Body reviewId={reviewId} cited={cited} />}
    </Sheet>
  );
}

const languages = new Intl.DisplayNames("en", { type: "language" });

function languageOf(tag: string): string {
  try {
    return languages.of(tag) ?? tag;
  } catch {
    return tag;
  }
}

function Body({ reviewId, cited }: { reviewId: number; cited: Cited }) {
  const { choice, use, speak } = useStyleChoice(reviewId);
  const [find, setFind] = useState("");
  const late = useLate(find, 150);
  const styles = useStyles(late);
  const made = useBibliography(reviewId, cited, choice);
  const say = useSay();
  const fault = useSayFault();
  const references = made.data?.references ?? [];
  const one = references.length === 1;
  const query = (format: string) => {
    const asked = new URLSearchParams({ format, style: choice.style, locale: choice.locale });
    if ("stepId" in cited) asked.set("stepId", String(cited.stepId));
    return `/api/reviews/${reviewId}/bibliography?${asked}`;
  };
  return (
    <div className="grid grid-cols-[250px_minmax(0,1fr)] gap-5">
      <div>
        <label htmlFor="style" className="mb-1 block text-[12.5px] font-semibold">
          Style
        </label>
        <Input
          id="style"
          role="combobox"
          aria-expanded="true"
          aria-controls="styles"
          value={find}
          onChange={(e) => setFind(e.target.value)}
          onKeyDown={(e) => {
            const first = styles.data?.styles[0];
            if (e.key === "Enter" && first) use(first);
          }}
          placeholder={styles.data ? `Find among ${count(styles.data.total)}` : "Find by name"}
          spellCheck={false}
          className="h-8 w-full text-[13px]"
        />
        <ul
          id="styles"
          role="listbox"
          aria-label="Styles"
          className={`mt-1 h-[300px] overflow-y-auto rounded-md border border-line bg-raised
            ${styles.isPlaceholderData ? "opacity-60" : ""}`}
        >
          {late === "" && choice.used.length > 0 && (
            <>
              <Group>Used in this review</Group>
              {choice.used.map((s) => (
                <StyleOption key={s.key} title={s.title} chosen={s.key === choice.style} onChoose={() => use(s)} />
              ))}
              <Group>Often used</Group>
            </>
          )}
          {styles.data?.styles
            .filter((s) => late !== "" || !choice.used.some((u) => u.key === s.key))
            .map((s) => (
              <StyleOption
                key={s.key}
                title={s.title}
                follows={s.follows}
                chosen={s.key === choice.style}
                onChoose={() => use(s)}
              />
            ))}
          {styles.data?.styles.length === 0 && (
            <li className="px-2 py-2 text-[12.5px] text-quiet">No style has this name.</li>
          )}
        </ul>
        <label htmlFor="locale" className="mt-3 mb-1 block text-[12.5px] font-semibold">
          Language
        </label>
        <Select
          id="locale"
          value={choice.locale}
          onChange={(e) => speak(e.target.value)}
          className="h-8 w-full text-[13px]"
        >
          <option value="">the style’s default</option>
          {styles.data?.locales.map((l) => (
            <option key={l} value={l}>
              {languageOf(l)}
            </option>
          ))}
        </Select>
      </div>
      <div className="flex min-w-0 flex-col">
        <p className="mb-1 text-[12.5px] text-quiet">
          {made.data ? (
            <>
              <b className="font-semibold text-ink">{made.data.style.title}</b>, {languageOf(made.data.locale)}
            </>
          ) : (
            "…"
          )}
        </p>
        {made.data?.note && <p className="mb-1 text-[12.5px] text-futuretext">{made.data.note}</p>}
        {made.error ? (
          <Fault error={made.error} />
        ) : (
          <ol
            aria-label="References"
            className={`max-h-[46vh] min-h-[120px] flex-1 overflow-y-auto rounded-md border border-line bg-raised px-4
              py-3 font-serif text-[15px] leading-[1.5] ${made.isPlaceholderData ? "opacity-60" : ""}`}
          >
            {references.map((r) => (
              <li key={r.workId} className="mb-2.5 break-words">
                <div className="references" dangerouslySetInnerHTML={{ __html: r.html }} />
                {r.missing.length > 0 && (
                  <p className="font-sans text-[12px] text-futuretext">
                    The records have no {r.missing.join(", no ")}.
                  </p>
                )}
              </li>
            ))}
          </ol>
        )}
        {(made.data?.left ?? 0) > 0 && (
          <p className="mt-1 text-[12.5px] text-quiet">
            The first {count(references.length)} are shown; the files hold all{" "}
            {count(references.length + (made.data?.left ?? 0))}.
          </p>
        )}
        <div className="mt-3 flex gap-2">
          <Button
            kind="primary"
            disabled={references.length === 0}
            onClick={() =>
              void copyReferences(references).then(
                () => say(one ? "The reference is copied." : `${count(references.length)} references are copied.`),
                fault,
              )
            }
          >
            Copy {one ? "it" : `the ${count(references.length)}`}
          </Button>
          {"stepId" in cited && (
            <>
              <a className={file} href={query("html")} download>
                Save as HTML
              </a>
              <a className={file} href={query("text")} download>
                Save as text
              </a>
            </>
          )}
        </div>
      </div>
    </div>
  );
}

const file = "inline-flex h-8 items-center rounded-md border border-edge bg-raised px-3 text-[13px] hover:border-ink";

/** What stands over styles that belong together. */
function Group({ children }: { children: string }) {
  return (
    <li role="presentation" className="px-2 pt-1.5 pb-0.5 text-[11.5px] text-quiet">
      {children}
    </li>
  );
}

function StyleOption({
  title,
  follows = null,
  chosen,
  onChoose,
}: {
  title: string;
  follows?: string | null;
  chosen: boolean;
  onChoose: () => void;
}) {
  return (
    <li
      role="option"
      tabIndex={0}
      aria-selected={chosen}
      onClick={onChoose}
      onKeyDown={(e) => {
        if (e.key === "Enter" || e.key === " ") {
          e.preventDefault();
          onChoose();
        }
      }}
      className={`cursor-pointer px-2 py-1 text-[12.5px] leading-snug hover:bg-mist ${chosen ? "bg-mist font-semibold" : ""}`}
    >
      {title}
      {follows && <span className="block text-[11.5px] font-normal text-quiet">as {follows}</span>}
    </li>
  );
}
