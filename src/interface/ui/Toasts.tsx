import { createContext, useCallback, useContext, useMemo, useRef, useState, type ReactNode } from "react";
import { Problem } from "../api/client";

interface Note {
  id: number;
  text: string;
  fault: boolean;
  act?: { label: string; run: () => void };
}

const Say = createContext<(text: string, act?: Note["act"], fault?: boolean) => void>(() => undefined);

/** Says in a line what was done, with a way to take it back. */
export function useSay() {
  return useContext(Say);
}

/** Says what went wrong with an act. */
export function useSayFault() {
  const say = useSay();
  return useCallback(
    (error: unknown) => {
      const sentence = error instanceof Error ? error.message : "Something went wrong.";
      say(error instanceof Problem && error.act ? `${sentence} ${error.act}` : sentence, undefined, true);
    },
    [say],
  );
}

// Whoever reads slowly has time to take an act back (WCAG 2.2, 2.2.1).
const stays = 8_000,
  staysWithAct = 20_000;

/** Holds the lines at the foot of the page; each stays some seconds, or until the next. */
export function Toasts({ children }: { children: ReactNode }) {
  const [note, setNote] = useState<Note | null>(null);
  const last = useRef(0);
  const say = useCallback((text: string, act?: Note["act"], fault = false) => {
    const id = ++last.current;
    setNote(act ? { id, text, fault, act } : { id, text, fault });
    setTimeout(() => setNote((n) => (n?.id === id ? null : n)), act ? staysWithAct : stays);
  }, []);
  const value = useMemo(() => say, [say]);
  return (
    <Say.Provider value={value}>
      {children}
      <div
        role="status"
        aria-live="polite"
        className="pointer-events-none fixed bottom-4 left-[calc(50%+36px)] z-30 -translate-x-1/2"
      >
        {note && (
          <div
            className={`pointer-events-auto flex max-w-[640px] items-center gap-4 rounded-md border px-4 py-2 text-[13px]
              shadow-lg ${note.fault ? "border-aside bg-raised text-ink" : "border-rail bg-rail text-white"}`}
          >
            <span>{note.text}</span>
            {note.act && (
              <button
                type="button"
                className="font-semibold whitespace-nowrap underline underline-offset-2"
                onClick={() => {
                  note.act?.run();
                  setNote(null);
                }}
              >
                {note.act.label}
              </button>
            )}
          </div>
        )}
      </div>
    </Say.Provider>
  );
}
