import { useSayFault } from "../../ui/Toasts";
import { dayOf } from "../../ui/days";
import { count, works } from "../../ui/numbers";
import { arrange, linksDrawn, type Arranged } from "./arrange";
import { mapSvg, margins, pngOf, print, save } from "./exportMap";
import { fetchMap, type Choice, type MapColour, type MapOf } from "./useMap";

/** So many of the weightiest works are named on an exported picture, where there is room, unless somebody says otherwise. */
export const usuallyNamed = 25;

/** Pictures have this shape, width to height, where their width was chosen. */
const shape = 1.45;

/** How a picture is to be: its width in pixels, null for that of the screen, and whose names stand on it. */
export interface PictureAsked {
  width: number | null;
  labels: number;
  namesPicked: boolean;
}

/** Formats of a picture. */
export type PictureFormat = "SVG" | "PNG" | "PDF";

/** How a map is taken along. */
export interface Exports {
  /** As a picture. */
  picture: (format: PictureFormat, asked: PictureAsked) => void;
  /** As a file that the server writes. */
  file: (format: "graphml" | "csv") => void;
}

/** How a map is taken along; null while there is none. */
export function useExports({
  reviewId,
  stepId,
  choice,
  colour,
  frame,
  map,
  picture,
  arranged,
  picked,
  title,
}: {
  reviewId: number;
  stepId: number;
  choice: Choice;
  colour: MapColour;
  frame: { width: number; height: number } | null;
  map: MapOf | undefined;
  picture: Arranged | null;
  /** Arranges another drawing of the map as this one is. */
  arranged: (map: MapOf) => ReturnType<typeof arrange>;
  /** Ordinals of the picked works. */
  picked: ReadonlySet<number>;
  /** What the set is: the review and the step. */
  title: string;
}): Exports | null {
  const fault = useSayFault();
  if (!map || !picture) return null;
  const svgOf = async ({ width, labels, namesPicked }: PictureAsked) => {
    const wide =
      width === null
        ? map
        : await fetchMap(reviewId, stepId, choice, { width: width - margins, height: width / shape });
    const drawn = width === null ? picture : arranged(wide);
    return mapSvg(wide, drawn, {
      caption: [
        title,
        `${works(drawn.at.size)}, ${count(linksDrawn(drawn))} citations among them; ${dayOf(new Date())}. ` +
          "Pennant: kept; ring: found; cross: set aside.",
        ...(colour === "Tag" && map.tags.length > 0
          ? [`Colour and number: ${map.tags.map((t, i) => `${i + 1} ${t.name}`).join(", ")}.`]
          : []),
      ],
      along: choice.along,
      colour,
      labels,
      chosen: namesPicked ? picked : new Set(),
    });
  };
  return {
    picture: (format, asked) =>
      void svgOf(asked).then(async (svg) => {
        if (format === "SVG") save("map.svg", "image/svg+xml", svg);
        else if (format === "PNG") save("map.png", "image/png", await pngOf(svg, 2));
        else print(svg);
      }, fault),
    file: (format) => {
      const query = new URLSearchParams(
        Object.entries({ ...choice, ...frame }).map(([name, value]): [string, string] => [name, String(value)]),
      );
      window.location.assign(`/api/reviews/${reviewId}/steps/${stepId}/map/${format}?${query.toString()}`);
    },
  };
}
