import { useSayFault } from "../../ui/Toasts";
import { count, works } from "../../ui/numbers";
import { linksDrawn, type Arranged } from "./arrange";
import { mapSvg, pngOf, save } from "./exportMap";
import type { Choice, MapOf } from "./useMap";

/** So many of the weightiest works are named on an exported picture, where there is room. */
const named = 25;

/** How a map is taken along: what it is called, what it is for, and the act. Nothing while there is no map. */
export function useExports({
  reviewId,
  stepId,
  choice,
  frame,
  map,
  picture,
  title,
}: {
  reviewId: number;
  stepId: number;
  choice: Choice;
  frame: { width: number; height: number } | null;
  map: MapOf | undefined;
  picture: Arranged | null;
  /** What the set is: the review and the step. */
  title: string;
}): readonly [label: string, use: string, act: () => void][] {
  const fault = useSayFault();
  if (!map || !picture) return [];
  const day = new Date().toLocaleDateString("en-GB", { day: "numeric", month: "long", year: "numeric" });
  const caption = [
    title,
    `${works(picture.at.size)}, ${count(linksDrawn(picture))} citations among them; ${day}. Pennant: kept; ring: found; cross: set aside.`,
  ];
  const svg = () => mapSvg(map, picture, caption, choice.along === "Year", named);
  const file = (format: string) => {
    const query = new URLSearchParams(
      Object.entries({ ...choice, ...frame }).map(([name, value]): [string, string] => [name, String(value)]),
    );
    window.location.assign(`/api/reviews/${reviewId}/steps/${stepId}/map/${format}?${query.toString()}`);
  };
  return [
    ["SVG", "for print", () => save("map.svg", "image/svg+xml", svg())],
    ["PNG", "twice as fine", () => void pngOf(svg(), 2).then((p) => save("map.png", "image/png", p), fault)],
    ["GraphML", "graph programs", () => file("graphml")],
    ["CSV", "spreadsheets", () => file("csv")],
  ];
}
