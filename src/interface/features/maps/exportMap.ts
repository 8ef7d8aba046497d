import type { Arranged } from "./arrange";
import { columnLabel, isTicked } from "./columns";
import { laneColour, laneColours, markPaint, markPath, tagNumber, workColour } from "./marks";
import { works } from "../../ui/numbers";
import type { MapAlong, MapColour, MapOf } from "./useMap";

const left = 160;
const top = 52;
const font = "Figtree, 'Helvetica Neue', Arial, sans-serif";

const escaped = (text: string) =>
  text.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll(">", "&gt;").replaceAll('"', "&quot;");

/** Colours of the light theme on white, whatever theme is on: a picture is printed. */
function printed(): (role: string) => string {
  const probe = document.createElement("div");
  probe.dataset["theme"] = "light";
  probe.className = "print-colours";
  document.body.append(probe);
  const styles = getComputedStyle(probe);
  const names = ["paper", "soft", "line", "ink", "quiet", ...laneColours.map((c) => c.slice(6, -1))];
  const values = new Map(names.map((n) => [`var(--${n})`, styles.getPropertyValue(`--${n}`).trim()]));
  values.set("var(--paper)", "#ffffff");
  probe.remove();
  return (role) => values.get(role) ?? role;
}

/**
 * Labels of works that do not lie on one another: each beside its mark, the chosen first, then the weightiest.
 * @param most how many of those that nobody chose, at most
 * @param chosen ordinals of works that are to be named
 */
export function labelled(picture: Arranged, width: number, most: number, chosen: ReadonlySet<number>) {
  const taken: { x: number; y: number; width: number }[] = [];
  const first = (m: { of: number }) => (chosen.has(m.of) ? 0 : 1);
  const inTurn = [...picture.marks].sort((a, b) => first(a) - first(b) || b.work.size - a.work.size || a.of - b.of);
  const labels: { x: number; y: number; text: string }[] = [];
  let left = most;
  for (const mark of inTurn) {
    const isChosen = chosen.has(mark.of);
    if (!isChosen && left === 0) break;
    const text = mark.work.name;
    const wide = text.length * 5.6 + 4;
    const r = mark.work.diameter / 2 + 3;
    for (const x of [mark.x + r, mark.x - r - wide]) {
      if (x < 0 || x + wide > width) continue;
      if (taken.some((t) => Math.abs(t.y - mark.y) < 13 && x < t.x + t.width && t.x < x + wide)) continue;
      taken.push({ x, y: mark.y, width: wide });
      labels.push({ x, y: mark.y, text });
      if (!isChosen) left--;
      break;
    }
  }
  return labels;
}

/** How a picture is written. */
export interface Printed {
  /** A title, and lines to stand below. */
  caption: readonly string[];
  along: MapAlong;
  colour: MapColour;
  /** How many of the weightiest works are named, where there is room. */
  labels: number;
  /** Ordinals of works that are named before them. */
  chosen: ReadonlySet<number>;
}

/** What stands left and right of the columns of a picture, in pixels. */
export const margins = left + 20;

/** The picture as a file of its own: SVG, light on white, with a caption. */
export function mapSvg(map: MapOf, picture: Arranged, { caption, along, colour: by, labels, chosen }: Printed): string {
  const colour = printed();
  const width = margins + map.width;
  const height = top + picture.height + 40;
  const paint = (attributes: Record<string, string | number | undefined>) =>
    Object.entries(attributes)
      .map(([name, value]) => {
        const written = name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`);
        return value === undefined ? "" : ` ${written}="${colour(String(value))}"`;
      })
      .join("");
  const text = (x: number, y: number, said: string, more: Record<string, string | number> = {}) =>
    `<text x="${x.toFixed(1)}" y="${y.toFixed(1)}"${paint({ fontSize: 11, fill: "var(--ink)", ...more })}>${escaped(said)}</text>`;
  const parts = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="${font}">`,
    `<title>${escaped(caption[0] ?? "")}</title>`,
    `<rect width="${width}" height="${height}" fill="#ffffff"/>`,
    text(12, 20, caption[0] ?? "", { fontSize: 14, fontWeight: 600 }),
    `<g transform="translate(${left} ${top})">`,
    ...picture.lanes.flatMap((lane, i) => [
      `<rect x="0" y="${lane.y}" width="${map.width}" height="${lane.height}"` +
        `${paint({ fill: i % 2 === 0 ? "var(--soft)" : "var(--paper)" })}/>`,
      `<rect x="${-left + 12}" y="${lane.y}" width="4" height="${lane.height}"${paint({ fill: laneColour(map, lane.of) })}/>`,
      text(-left + 22, lane.y + 16, lane.label.length > 24 ? `${lane.label.slice(0, 23)}…` : lane.label, {
        fontWeight: 600,
      }),
      ...(lane.isFolded ? [] : [text(-left + 22, lane.y + 31, works(lane.works), { fill: "var(--quiet)" })]),
    ]),
    ...map.columns
      .filter(isTicked(map, along))
      .flatMap((c) => [
        `<line x1="${c.x}" x2="${c.x}" y1="-4" y2="${picture.height}"${paint({ stroke: "var(--line)" })}/>`,
        text(c.x, -8, columnLabel(c, along), { fill: "var(--quiet)" }),
      ]),
    ...picture.marks.map(
      ({ work, x, y }) =>
        `<path d="${markPath(work.stage, x, y, work.diameter)}"` +
        `${paint(markPaint(work.stage, workColour(map, by, work), work.diameter))}>` +
        `<title>${escaped(`${work.name}: ${work.title}`)}</title></path>`,
    ),
    ...picture.marks.flatMap(({ work, x, y }) => {
      const number = tagNumber(by, work);
      return number === null
        ? []
        : [text(x + work.diameter / 2, y - work.diameter / 2 + 4, number, { fontSize: 9, fontWeight: 700 })];
    }),
    ...picture.bins.flatMap((b) => [
      `<rect x="${b.x}" y="${b.y}" width="${b.width}" height="${b.height}" rx="3"` +
        `${paint({ fill: "var(--paper)", stroke: laneColour(map, b.lane) })}/>`,
      text(b.x + b.width / 2, b.y + b.height / 2 + 4, String(b.works.length), { textAnchor: "middle" }),
    ]),
    ...labelled(picture, map.width, labels, chosen).map((l) => text(l.x, l.y + 4, l.text, { fontSize: 10 })),
    "</g>",
    ...caption.slice(1).map((said, i) => text(12, top + picture.height + 18 + i * 15, said, { fill: "var(--quiet)" })),
    "</svg>",
  ];
  return parts.join("");
}

/** Hands a file to the person. */
export function save(name: string, type: string, content: BlobPart): void {
  const link = document.createElement("a");
  link.href = URL.createObjectURL(new Blob([content], { type }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** A picture as PNG, so many times as fine as the screen. */
export async function pngOf(svg: string, scale: number): Promise<Blob> {
  const address = URL.createObjectURL(new Blob([svg], { type: "image/svg+xml" }));
  try {
    const image = new Image();
    await new Promise<void>((done, failed) => {
      image.onload = () => done();
      image.onerror = () => failed(new Error("The picture could not be drawn."));
      image.src = address;
    });
    const canvas = document.createElement("canvas");
    canvas.width = image.width * scale;
    canvas.height = image.height * scale;
    const context = canvas.getContext("2d");
    if (!context) throw new Error("This browser draws no pictures.");
    context.scale(scale, scale);
    context.drawImage(image, 0, 0);
    return await new Promise((done, failed) =>
      canvas.toBlob((blob) => (blob ? done(blob) : failed(new Error("The picture is too large."))), "image/png"),
    );
  } finally {
    URL.revokeObjectURL(address);
  }
}

/** Prints a picture, on paper or into a PDF: nothing else of the page, on a sheet of its size. */
export function print(svg: string): void {
  const drawn = document.importNode(new DOMParser().parseFromString(svg, "image/svg+xml").documentElement, true);
  const sheet = document.createElement("div");
  sheet.className = "print-sheet";
  sheet.append(drawn);
  const page = new CSSStyleSheet();
  page.replaceSync(
    `@page { size: ${drawn.getAttribute("width") ?? "1000"}px ${drawn.getAttribute("height") ?? "700"}px; margin: 0 }`,
  );
  document.adoptedStyleSheets.push(page);
  document.body.append(sheet);
  document.body.classList.add("prints-sheet");
  window.addEventListener(
    "afterprint",
    () => {
      document.body.classList.remove("prints-sheet");
      sheet.remove();
      document.adoptedStyleSheets = document.adoptedStyleSheets.filter((s) => s !== page);
    },
    { once: true },
  );
  window.print();
}
