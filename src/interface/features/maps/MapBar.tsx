import { DropdownMenu } from "radix-ui";
import { barButton } from "../../ui/Button";
import { Press } from "../../ui/Press";
import { MenuFrame, MenuItem, MenuLabel, MenuLine, menuItem } from "../../ui/Menu";
import { usuallyNamed, type Exports } from "./useExports";
import type { Choice, MapColour } from "./useMap";
import { alongWords, colourWords, laneWords, orderWords, sizeWords } from "./words";
import type { Dto } from "../../api/client";

/** Which links are drawn though nothing is looked at. */
export interface Drawn {
  mainLine: boolean;
  flows: boolean;
  strongest: boolean;
}

/** What can be chosen about the map, and what can be done with it. */
export function MapBar({
  choice,
  colour,
  onChoice,
  databases,
  others,
  papers,
  onPlan,
  hasSeeds,
  hasHidden,
  onShowAll,
  drawn,
  onDrawn,
  zoom,
  onZoom,
  boxes,
  onBoxes,
  isTable,
  onTable,
  onSave,
  exports,
  onPicture,
}: {
  choice: Choice;
  colour: MapColour;
  onChoice: (choice: Partial<Choice> & { colour?: MapColour }) => void;
  /** Databases that count citations themselves. */
  databases: readonly Pick<Dto<"LedgerLineDto">, "databaseId" | "name">[];
  /** Other sets of the review that it can be held against. */
  others: readonly { id: number; label: string }[];
  /** Custom entries whose citations it can be held against. */
  papers: readonly { workId: number; title: string }[];
  /** Plans a paper that cites works of the map. */
  onPlan: () => void;
  hasSeeds: boolean;
  /** Whether lanes are folded, hidden or renamed. */
  hasHidden: boolean;
  onShowAll: () => void;
  drawn: Drawn;
  onDrawn: (drawn: Drawn) => void;
  zoom: number;
  onZoom: (zoom: number) => void;
  /** Whether a finger draws a box instead of moving the map. */
  boxes: boolean;
  onBoxes: () => void;
  isTable: boolean;
  onTable: () => void;
  onSave: () => void;
  exports: Exports | null;
  /** Asks how a picture is to be. */
  onPicture: () => void;
}) {
  const sizes: [string, string][] = [
    ...sizeWords.filter(([s]) => s !== "Seeds" || hasSeeds),
    ...databases.map((d): [string, string] => [`DatabaseCited ${d.databaseId}`, `citations counted by ${d.name}`]),
  ];
  return (
    <div
      role="toolbar"
      aria-label="Map"
      className={`flex shrink-0 flex-wrap items-center gap-x-2 gap-y-1 border-b border-line px-[18px] py-1.5 text-[12.5px]
        text-quiet max-sm:flex-nowrap max-sm:overflow-x-auto max-sm:px-3`}
    >
      <Choose
        what="Lanes"
        value={choice.lanes}
        of={laneWords.filter(([l]) => l !== "Seed" || hasSeeds)}
        onChoose={(lanes) => onChoice({ lanes: lanes as Choice["lanes"] })}
      />
      <Choose
        what="Order"
        value={choice.order}
        of={orderWords}
        onChoose={(order) => onChoice({ order: order as Choice["order"] })}
      />
      <Choose
        what="Along"
        value={choice.along}
        of={alongWords}
        onChoose={(along) => onChoice({ along: along as Choice["along"] })}
      />
      <Choose
        what="Size"
        value={choice.size === "DatabaseCited" ? `DatabaseCited ${choice.database}` : choice.size}
        of={sizes}
        onChoose={(chosen) => {
          const [size, database] = chosen.split(" ");
          onChoice({ size: size as Choice["size"], database: Number(database ?? 0) });
        }}
      />
      <Choose what="Colour" value={colour} of={colourWords} onChoose={(c) => onChoice({ colour: c as MapColour })} />
      <Against choice={choice} others={others} papers={papers} onChoice={onChoice} onPlan={onPlan} />
      <div className="ml-auto flex flex-wrap items-center justify-end gap-x-2 gap-y-1 max-sm:flex-nowrap">
        {hasHidden && (
          <Press className={barButton} onClick={onShowAll}>
            Reset the lanes
          </Press>
        )}
        <DropdownMenu.Root>
          <DropdownMenu.Trigger className={`${barButton} ${pressed(Object.values(drawn).some(Boolean))}`}>
            Links
          </DropdownMenu.Trigger>
          <MenuFrame width={270} align="end">
            {links.map(([which, label, says]) => (
              <DropdownMenu.CheckboxItem
                key={which}
                checked={drawn[which]}
                onCheckedChange={(on) => onDrawn({ ...drawn, [which]: on })}
                className={menuItem}
              >
                {label}
                <span className="text-[12px] font-normal text-quiet">{says}</span>
              </DropdownMenu.CheckboxItem>
            ))}
          </MenuFrame>
        </DropdownMenu.Root>
        <Press
          aria-pressed={choice.suggest > 0}
          className={`${barButton} ${pressed(choice.suggest > 0)}`}
          title="Works that share most references with the kept ones, or are cited together with them"
          onClick={() => onChoice({ suggest: choice.suggest > 0 ? 0 : suggestions })}
        >
          Suggest
        </Press>
        <span className="inline-flex">
          <Press
            aria-label="Narrower years"
            disabled={zoom <= 1 || isTable}
            className={`${barButton} rounded-r-none`}
            onClick={() => onZoom(zoom / 2)}
          >
            −
          </Press>
          <Press
            aria-label="Wider years"
            disabled={zoom >= 8 || isTable}
            className={`${barButton} rounded-l-none border-l-0`}
            onClick={() => onZoom(zoom * 2)}
          >
            +
          </Press>
        </span>
        <Press
          aria-pressed={boxes}
          className={`${barButton} ${pressed(boxes)} hidden pointer-coarse:inline-block`}
          onClick={onBoxes}
        >
          Draw a box
        </Press>
        <Press aria-pressed={isTable} className={`${barButton} ${pressed(isTable)}`} onClick={onTable}>
          Table
        </Press>
        <DropdownMenu.Root>
          <DropdownMenu.Trigger className={barButton} disabled={exports === null}>
            Export map
          </DropdownMenu.Trigger>
          <MenuFrame width={250} align="end">
            {pictures.map(([format, use]) => (
              <MenuItem
                key={format}
                aside={use}
                onSelect={() => exports?.picture(format, { width: null, labels: usuallyNamed, namesPicked: false })}
              >
                {format}
              </MenuItem>
            ))}
            <MenuItem onSelect={onPicture} aside="width, names">
              A picture of another size …
            </MenuItem>
            <MenuLine />
            <MenuItem onSelect={() => exports?.file("graphml")} aside="graph programs">
              GraphML
            </MenuItem>
            <MenuItem onSelect={() => exports?.file("csv")} aside="spreadsheets">
              CSV
            </MenuItem>
          </MenuFrame>
        </DropdownMenu.Root>
        <Press className={barButton} onClick={onSave}>
          Save map
        </Press>
      </div>
    </div>
  );
}

/** What the set is held against: another set, or a paper that is to cite it. */
function Against({
  choice,
  others,
  papers,
  onChoice,
  onPlan,
}: {
  choice: Choice;
  others: readonly { id: number; label: string }[];
  papers: readonly { workId: number; title: string }[];
  onChoice: (choice: Partial<Choice>) => void;
  onPlan: () => void;
}) {
  const paper = papers.find((p) => p.workId === choice.plan);
  const other = others.find((o) => o.id === choice.against);
  const said = paper ? paper.title : other ? other.label : choice.plan > 0 ? "a work" : "nothing";
  const value = choice.plan > 0 ? `paper ${choice.plan}` : `set ${choice.against}`;
  const item = (v: string, label: string) => (
    <DropdownMenu.RadioItem key={v} value={v} className={menuItem}>
      <span className="max-w-[300px] truncate">{label}</span>
    </DropdownMenu.RadioItem>
  );
  return (
    <span className="inline-flex items-center gap-1.5">
      Against
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className={barButton} aria-label={`Against: ${said}`}>
          <b className="inline-block max-w-[92px] truncate align-bottom font-semibold text-ink">{said}</b>
        </DropdownMenu.Trigger>
        <MenuFrame width={240}>
          <DropdownMenu.RadioGroup
            value={value}
            onValueChange={(chosen) => {
              const [kind, id] = chosen.split(" ");
              onChoice({ against: kind === "set" ? Number(id) : 0, plan: kind === "paper" ? Number(id) : 0 });
            }}
          >
            {item("set 0", "nothing")}
            {others.length > 0 && <MenuLabel>Another set</MenuLabel>}
            {others.map((o) => item(`set ${o.id}`, o.label))}
            {papers.length > 0 && <MenuLabel>A custom entry: what does it leave out?</MenuLabel>}
            {papers.map((p) => item(`paper ${p.workId}`, p.title))}
          </DropdownMenu.RadioGroup>
          <MenuLine />
          <MenuItem onSelect={onPlan}>Plan a paper that cites these works …</MenuItem>
        </MenuFrame>
      </DropdownMenu.Root>
    </span>
  );
}

const pictures = [
  ["SVG", "for print"],
  ["PNG", "twice as fine"],
  ["PDF", "by the print dialog"],
] as const;

const links: [keyof Drawn, string, string][] = [
  ["mainLine", "Main line", "oldest to newest"],
  ["flows", "All links", "lane to lane"],
  ["strongest", "Strongest links", "one from each work"],
];

const suggestions = 12;
const pressed = (on: boolean) => (on ? "border-pine bg-mist text-ink" : "");

function Choose({
  what,
  value,
  of,
  onChoose,
}: {
  what: string;
  value: string;
  of: readonly (readonly [string, string])[];
  onChoose: (value: string) => void;
}) {
  return (
    <span className="inline-flex items-center gap-1.5 whitespace-nowrap">
      {what}
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className={barButton} aria-label={`${what}: ${of.find(([v]) => v === value)?.[1] ?? ""}`}>
          <b className="font-semibold text-ink">{of.find(([v]) => v === value)?.[1] ?? "…"}</b>
        </DropdownMenu.Trigger>
        <MenuFrame width={200}>
          <DropdownMenu.RadioGroup value={value} onValueChange={onChoose}>
            {of.map(([v, word]) => (
              <DropdownMenu.RadioItem key={v} value={v} className={menuItem}>
                {word}
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
        </MenuFrame>
      </DropdownMenu.Root>
    </span>
  );
}
