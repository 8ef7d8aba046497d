import { ChevronDown } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import type { Dto } from "../../api/client";
import { useSetSchedule } from "../../review/useDatabases";
import { MenuFrame, menuItem } from "../../ui/Menu";
import { moment } from "../../ui/numbers";

type Every = NonNullable<Dto<"DatabaseDto">["every"]>;

const words: Record<Every | "never", string> = {
  never: "by hand only",
  EveryNight: "every night",
  EveryWeek: "every week",
};

/** How often a database is harvested by itself; a curator sets it. */
export function HarvestTimes({
  database: d,
  curator,
  followsOutside,
}: {
  database: Dto<"DatabaseDto">;
  curator: boolean;
  followsOutside: boolean;
}) {
  const set = useSetSchedule();
  const now = d.every ?? "never";
  const clock = followsOutside ? ", by the clock of the simulated outside" : "";
  const next = d.dueAt ? `Next harvest: ${moment(d.dueAt)}${clock}` : undefined;
  if (!curator) return d.every ? <p title={next}>{words[d.every]}</p> : null;
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        className="inline-flex items-center gap-0.5 hover:text-ink"
        title={next}
        aria-label={`Harvest ${d.name}: ${words[now]}`}
      >
        {words[now]}
        <ChevronDown size={12} aria-hidden="true" />
      </DropdownMenu.Trigger>
      <MenuFrame width={170} align="end">
        <DropdownMenu.RadioGroup
          value={now}
          onValueChange={(v) => set.mutate({ id: d.id, every: v === "never" ? null : (v as Every) })}
        >
          {Object.entries(words).map(([every, word]) => (
            <DropdownMenu.RadioItem key={every} value={every} className={menuItem}>
              {word}
            </DropdownMenu.RadioItem>
          ))}
        </DropdownMenu.RadioGroup>
      </MenuFrame>
    </DropdownMenu.Root>
  );
}
