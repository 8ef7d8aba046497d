import { useSyncExternalStore } from "react";

/** Which theme the person chose; "system" follows the machine. */
export type Theme = "system" | "light" | "dark";

const key = "zendle.theme";
const listeners = new Set<() => void>();
const dark = window.matchMedia("(prefers-color-scheme: dark)");

function chosen(): Theme {
  const saved = localStorage.getItem(key);
  return saved === "light" || saved === "dark" ? saved : "system";
}

function apply(): void {
  const theme = chosen();
  document.documentElement.dataset["theme"] = theme === "system" ? (dark.matches ? "dark" : "light") : theme;
}

/** Starts following the choice and the machine. */
export function startTheme(): void {
  apply();
  dark.addEventListener("change", apply);
}

/** The chosen theme and a way to choose another. */
export function useTheme(): [Theme, (theme: Theme) => void] {
  const theme = useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, chosen);
  const choose = (next: Theme) => {
    if (next === "system") localStorage.removeItem(key);
    else localStorage.setItem(key, next);
    apply();
    listeners.forEach((l) => l());
  };
  return [theme, choose];
}
