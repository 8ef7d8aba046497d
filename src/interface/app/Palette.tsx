import { Dialog } from "radix-ui";
import { useEffect, useId, useState } from "react";
import { useNavigate } from "react-router";
import type { Dto } from "../api/client";
import { useSignOut } from "../review/useMe";
import { useReviews } from "../review/useReviews";
import { useOpenKept } from "../set/useSet";
import { useFollow } from "../set/useTrail";
import { useTheme } from "../ui/theme";

interface Entry {
  label: string;
  hint: string;
  run: () => void;
}

/** Go to anything, do anything, by typing a part of its name. */
export function Palette({
  review,
  onKeys,
  onEntry,
}: {
  review: Dto<"ReviewDto"> | null;
  onKeys: () => void;
  onEntry: () => void;
}) {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "k") {
        e.preventDefault();
        setOpen((o) => !o);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger
        className={`ml-auto flex h-7 w-[250px] shrink-0 items-center justify-between rounded-md border border-edge
          bg-raised px-2.5 text-[12.5px] text-faint max-[1100px]:w-[150px] max-sm:w-auto max-sm:[&>kbd]:hidden`}
      >
        Go to, or do …<kbd className="rounded border border-line px-1 text-[11.5px] text-quiet">Ctrl K</kbd>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-veil" />
        <Dialog.Content
          aria-describedby={undefined}
          className={`fixed top-[14vh] left-1/2 z-50 w-[560px] max-w-[calc(100vw-40px)] -translate-x-1/2 overflow-hidden
            rounded-md border border-line bg-paper shadow-xl`}
        >
          <Dialog.Title className="sr-only">Go to, or do</Dialog.Title>
          <PaletteBody review={review} onKeys={onKeys} onEntry={onEntry} close={() => setOpen(false)} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function PaletteBody({
  review,
  onKeys,
  onEntry,
  close,
}: {
  review: Dto<"ReviewDto"> | null;
  onKeys: () => void;
  onEntry: () => void;
  close: () => void;
}) {
  const navigate = useNavigate();
  const reviews = useReviews();
  const openKept = useOpenKept(review?.id ?? 0);
  const follow = useFollow(review?.id ?? 0);
  const signOut = useSignOut();
  const [theme, setTheme] = useTheme();
  const [text, setText] = useState("");
  const [at, setAt] = useState(0);
  const listId = useId();
  const go = (to: string) => () => void navigate(to);
  const here = review ? `/r/${review.id}` : null;
  const entries: Entry[] = [
    ...(here && review
      ? [
          { label: "Search", hint: "stage", run: go(`${here}/search`) },
          { label: "A new search, from nothing", hint: "starts another path", run: go(`${here}/search?step=0`) },
          { label: "Trails", hint: "stage", run: go(`${here}/trails`) },
          { label: "Trails from all kept works", hint: "both ways", run: () => follow(null, "Both") },
          {
            label: "Who cites a name",
            hint: "a person, under each of their names",
            run: go(`${here}/trails?step=0&cites=`),
          },
          { label: "Map", hint: "a set in lanes through time", run: go(`${here}/map`) },
          { label: "Gather: full texts", hint: `${review.withText} in hand`, run: go(`${here}/gather`) },
          { label: "Read", hint: "stage", run: go(`${here}/read`) },
          { label: "Kept works", hint: `${review.kept} works`, run: openKept },
          { label: "Report: the search log", hint: "stage", run: go(`${here}/report`) },
          ...(review.role === "Reader"
            ? []
            : [{ label: "Add a custom entry", hint: "a work that no database has", run: onEntry }]),
          { label: "Databases", hint: "what is searched", run: go(`${here}/databases`) },
        ]
      : []),
    ...(reviews.data ?? [])
      .filter((r) => r.id !== review?.id)
      .map((r) => ({ label: r.title, hint: "review", run: go(`/r/${r.id}/search`) })),
    { label: "All reviews, or a new one", hint: "", run: go("/reviews") },
    {
      label: theme === "dark" ? "Light theme" : "Dark theme",
      hint: "look",
      run: () => setTheme(theme === "dark" ? "light" : "dark"),
    },
    { label: "Keys", hint: "?", run: onKeys },
    { label: "Account and password", hint: "", run: go(here ? `${here}/account` : "/account") },
    { label: "About Zendle", hint: "licences", run: go("/about") },
    { label: "Sign out", hint: "", run: () => signOut.mutate(undefined) },
  ];
  const wanted = text.trim().toLowerCase();
  const shown: Entry[] = entries.filter((e) => wanted.split(/\s+/).every((w) => e.label.toLowerCase().includes(w)));
  if (here && wanted.length > 0)
    shown.push({
      label: `Search the databases for “${text.trim()}”`,
      hint: "a new path",
      run: go(`${here}/search?step=0&say=${encodeURIComponent(text.trim())}`),
    });
  if (here && wanted.length > 0)
    shown.push({
      label: `Who cites “${text.trim()}”`,
      hint: "as a name",
      run: go(`${here}/trails?step=0&cites=${encodeURIComponent(text.trim())}`),
    });
  const current = Math.min(at, shown.length - 1);
  const run = (entry: Entry | undefined) => {
    if (!entry) return;
    close();
    entry.run();
  };
  return (
    <>
      <input
        autoFocus
        role="combobox"
        aria-expanded="true"
        aria-controls={listId}
        aria-activedescendant={shown[current] ? `${listId}-${current}` : undefined}
        aria-label="Go to, or do"
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          setAt(0);
        }}
        onKeyDown={(e) => {
          if (e.key === "ArrowDown") setAt(Math.min(current + 1, shown.length - 1));
          else if (e.key === "ArrowUp") setAt(Math.max(current - 1, 0));
          else if (e.key === "Enter") run(shown[current]);
          else return;
          e.preventDefault();
        }}
        placeholder="A stage, a review, an act, or words to search"
        className="h-12 w-full border-b border-line bg-raised px-4 text-[15px] outline-none"
      />
      <ul id={listId} role="listbox" aria-label="Results" className="max-h-[46vh] overflow-y-auto py-1">
        {shown.map((entry, i) => (
          <li
            key={entry.label}
            id={`${listId}-${i}`}
            role="option"
            aria-selected={i === current}
            onMouseMove={() => setAt(i)}
            onClick={() => run(entry)}
            className={`flex cursor-pointer items-baseline justify-between gap-4 px-4 py-1.5 text-[13.5px]
              ${i === current ? "bg-mist" : ""}`}
          >
            <span className="truncate">{entry.label}</span>
            <span className="text-[12px] text-quiet">{entry.hint}</span>
          </li>
        ))}
      </ul>
    </>
  );
}
