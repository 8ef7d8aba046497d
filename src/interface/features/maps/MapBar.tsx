import { DropdownMenu } from "radix-ui";
import { barButton } from "../../ui/Button";
import { Press } from "../../ui/Press";
import { MenuFrame, MenuItem, MenuLine, menuItem } from "../../ui/Menu";
import type { Choice } from "./useMap";
import { alongWords, laneWords, orderWords, sizeWords } from "./words";
import type { Dto } from "../../api/client";

/** What can be chosen about the map, and what can be done with it. */
export function MapBar({
  choice,
  onChoice,
  databases,
  others,
  hasSeeds,
  hasHidden,
  onShowAll,
  line,
  onLine,
  flows,
  onFlows,
  zoom,
  onZoom,
  isTable,
  onTable,
  exports,
}: {
  choice: Choice;
  onChoice: (choice: Partial<Choice>) => void;
  /** Databases that count citations themselves. */
  databases: readonly Pick<Dto<"LedgerLineDto">, "databaseId" | "name">[];
  /** Other sets of the review that it can be held against. */
  others: readonly { id: number; label: string }[];
  hasSeeds: boolean;
  /** Whether lanes are folded, hidden or renamed. */
  hasHidden: boolean;
  onShowAll: () => void;
  /** Whether the main line is drawn. */
  line: boolean;
  onLine: () => void;
  /** Whether links are drawn from lane to lane. */
  flows: boolean;
  onFlows: () => void;
  zoom: number;
  onZoom: (zoom: number) => void;
  isTable: boolean;
  onTable: () => void;
  exports: readonly [label: string, use: string, act: () => void][];
}) {
  const sizes: [string, string][] = [
    ...sizeWords.filter(([s]) => s !== "Seeds" || hasSeeds),
    ...databases.map((d): [string, string] => [`DatabaseCited ${d.databaseId}`, `citations counted by ${d.name}`]),
  ];
  return (
    <div
      role="toolbar"
      aria-label="Map"
      className="flex shrink-0 flex-wrap items-center gap-x-2 gap-y-1 border-b border-line px-[18px] py-1.5 text-[12.5px] text-quiet max-sm:px-3"
    >
      <Choose
        what="Lanes"
        value={choice.lanes}
        of={laneWords.filter(([l]) => l !== "Seed" || hasSeeds)}
        onChoose={(lanes) => onChoice({ lanes: lanes as Choice["lanes"] })}
      />
      <Choose
        what="in the order"
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
      {others.length > 0 && (
        <Choose
          what="Against"
          value={String(choice.against)}
          of={[["0", "nothing"], ...others.map((o): [string, string] => [String(o.id), o.label])]}
          onChoose={(against) => onChoice({ against: Number(against) })}
        />
      )}
      <span className="flex-1" />
      {hasHidden && (
        <Press className={barButton} onClick={onShowAll}>
          Lanes as they were
        </Press>
      )}
      <Press aria-pressed={line} className={`${barButton} ${pressed(line)}`} onClick={onLine}>
        Main line
      </Press>
      <Press
        aria-pressed={flows}
        className={`${barButton} ${pressed(flows)}`}
        title="How often the works of one lane cite those of another"
        onClick={onFlows}
      >
        All links
      </Press>
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
      <Press aria-pressed={isTable} className={`${barButton} ${pressed(isTable)}`} onClick={onTable}>
        Table
      </Press>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className={barButton}>Export map</DropdownMenu.Trigger>
        <MenuFrame width={250} align="end">
          {exports.slice(0, 2).map(([label, use, act]) => (
            <MenuItem key={label} onSelect={act} aside={use}>
              {label}
            </MenuItem>
          ))}
          <MenuLine />
          {exports.slice(2).map(([label, use, act]) => (
            <MenuItem key={label} onSelect={act} aside={use}>
              {label}
            </MenuItem>
          ))}
        </MenuFrame>
      </DropdownMenu.Root>
    </div>
  );
}

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
    <span className="inline-flex items-center gap-1.5">
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
