import { GitBranch, Plus } from "lucide-react";
import { DropdownMenu } from "radix-ui";
import { useLayoutEffect, useRef, useState } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { MenuFrame, MenuItem, MenuLabel, MenuLine } from "../../ui/Menu";
import { Sheet } from "../../ui/Sheet";
import { change, count, works } from "../../ui/numbers";
import { ChangeSheet, canChange } from "./ChangeSheet";
import { CompareSheet } from "./CompareSheet";
import { useNamedSearches } from "./useNamed";
import { usePaths, useRemoveStep, useRenameStep, type Place } from "../useSet";
import { Press } from "../../ui/Press";

const tall = 25;
const thin = { stair: 8, words: 24 };
const stepWidth = 156;

type Step = Dto<"PathStepDto">;

/** So many of the newest paths are offered to compare with. */
const mostPaths = 12;

/** Height of a count on the stair: its logarithm, against the largest of the path and at least a thousand. */
function level(n: number, most: number, height: number): number {
  const edge = height / 6;
  return edge + (height - 2 * edge) * (Math.log10(n + 1) / Math.log10(Math.max(most, 1000) + 1));
}

/** The steps from left to right over one outline that falls toward the target band: one sees what each act did. */
export function PathStair({
  place,
  path,
  band,
  isThin = false,
}: {
  place: Place;
  path: Dto<"PathDto"> | null;
  band: [number, number];
  /** Whether each step has one line only, over a low stair: while one is further down in a list. */
  isThin?: boolean;
}) {
  const height = isThin ? thin.stair : tall;
  const steps = path?.steps ?? [];
  const scroller = useRef<HTMLDivElement>(null);
  const [naming, setNaming] = useState<Step | null>(null);
  const [changing, setChanging] = useState<Step | null>(null);
  const [against, setAgainst] = useState<[number, number] | null>(null);
  const remove = useRemoveStep(place);
  useLayoutEffect(() => {
    scroller.current?.querySelector('[aria-current="step"]')?.scrollIntoView({ inline: "center", block: "nearest" });
  }, [path?.stepId, steps.length]);
  if (steps.length === 0) return null;
  const most = Math.max(...steps.map((s) => s.countNow));
  const top = (n: number) => height - level(n, most, height);
  const width = Math.max(steps.length, 1) * stepWidth;
  return (
    <section
      aria-label="Path"
      className={`${isThin ? "" : "pt-1"} relative shrink-0 border-b border-line px-[18px] max-sm:px-3`}
    >
      <div ref={scroller} className="overflow-x-auto overflow-y-hidden [scrollbar-width:thin]">
        <div className="relative" style={{ minWidth: width + 170 }}>
          <ol className="flex">
            {steps.map((step, i) => (
              <StepBlock
                key={step.id}
                step={step}
                before={i > 0 ? (steps[i - 1]?.countNow ?? null) : null}
                place={place}
                current={step.id === path?.stepId}
                isThin={isThin}
                onName={() => setNaming(step)}
                onChange={() => setChanging(step)}
                onCompare={(other) => setAgainst([step.id, other])}
                onRemove={() => remove.mutate(step.id)}
              />
            ))}
            <li className="pl-3">
              <Press
                title="Start a new path"
                onClick={() => place.change({ step: "0", work: null })}
                className={`flex items-center gap-1 rounded-md px-2 text-[12px] text-quiet hover:bg-soft hover:text-ink
                  ${isThin ? "" : "py-1"}`}
              >
                <Plus size={13} /> new path
              </Press>
            </li>
          </ol>
          <svg width="100%" height={height} className="block max-sm:hidden" aria-hidden="true">
            <rect x="0" width="100%" y={top(band[1])} height={top(band[0]) - top(band[1])} fill="var(--band)" />
            {steps.map((s, i) => (
              <rect
                key={s.id}
                x={i * stepWidth}
                width={stepWidth}
                y={top(s.countNow)}
                height={height - top(s.countNow)}
                fill="var(--pine)"
                opacity={s.id === path?.stepId ? 1 : s.ahead ? 0.06 : 0.13}
              />
            ))}
            <path
              d={steps
                .map((s, i) => `${i === 0 ? "M" : "L"}${i * stepWidth} ${top(s.countNow)}H${(i + 1) * stepWidth}`)
                .join("")}
              fill="none"
              stroke="var(--pine)"
              strokeWidth={isThin ? 1 : 1.4}
            />
          </svg>
          <span
            hidden={isThin}
            className="absolute right-0 text-right text-[11.5px] leading-tight text-bandtext max-sm:hidden"
            style={{ bottom: height - top(band[1]) + 2 }}
          >
            target: {count(band[0])}–{count(band[1])}
          </span>
        </div>
      </div>
      {naming && <NameSheet key={naming.id} step={naming} reviewId={place.reviewId} close={() => setNaming(null)} />}
      {changing && <ChangeSheet key={changing.id} step={changing} place={place} close={() => setChanging(null)} />}
      {against && <CompareSheet place={place} here={against[0]} there={against[1]} close={() => setAgainst(null)} />}
    </section>
  );
}

function StepBlock({
  step,
  before,
  place,
  current,
  isThin,
  onName,
  onChange,
  onCompare,
  onRemove,
}: {
  step: Step;
  before: number | null;
  place: Place;
  current: boolean;
  isThin: boolean;
  onName: () => void;
  onChange: () => void;
  onCompare: (otherStepId: number) => void;
  onRemove: () => void;
}) {
  const [asked, setAsked] = useState(false);
  const named = useNamedSearches(place.reviewId, asked).data ?? [];
  const paths = usePaths(place.reviewId, asked).data ?? [];
  const others = [
    ...step.branches.map((b) => ({ id: b.id, label: b.label })),
    ...named.filter((s) => s.stepId !== step.id).map((s) => ({ id: s.stepId, label: s.name })),
    ...paths.filter((p) => p.id !== step.id).slice(0, mostPaths),
  ].filter((o, i, all) => all.findIndex((x) => x.id === o.id) === i);
  const goHere = () => place.change({ step: String(step.id), work: null });
  return (
    <li
      className={`group relative shrink-0 ${step.ahead ? "opacity-60" : ""}`}
      style={{ width: stepWidth }}
      aria-current={current ? "step" : undefined}
    >
      <Press
        onClick={goHere}
        className={`w-full rounded-md px-1.5 text-left hover:bg-soft ${isThin ? "flex items-baseline gap-1.5" : "block py-0.5"}`}
        style={{ height: isThin ? thin.words : undefined }}
        title={
          `${step.label}: ${works(step.countNow)}` +
          (step.count === step.countNow ? "" : `, ${count(step.count)} when this step was made`)
        }
      >
        <span
          className={`block min-w-0 truncate text-[11.5px] ${isThin ? "" : "pr-4"}
            ${current ? "text-ink" : "text-quiet"} ${step.named ? "font-semibold" : ""}`}
        >
          {step.label}
        </span>
        <span className={`flex items-baseline gap-1.5 ${isThin ? "mr-5 ml-auto" : ""}`}>
          <b
            className={`${isThin ? "text-[13px]" : "text-[15px]"} leading-tight font-bold ${current ? "text-pine" : ""}`}
          >
            {count(step.countNow)}
          </b>
          <span className="text-[11.5px] text-faint" hidden={isThin}>
            {step.count !== step.countNow
              ? `${count(step.count)} then`
              : before !== null
                ? change(before, step.countNow)
                : ""}
          </span>
        </span>
      </Press>
      <DropdownMenu.Root onOpenChange={(open) => open && setAsked(true)}>
        <DropdownMenu.Trigger
          aria-label={`More about the step ${step.label}`}
          className={`absolute right-0.5 grid w-6 place-items-center rounded text-quiet hover:bg-line
            focus-visible:opacity-100 data-[state=open]:opacity-100
            ${isThin ? "top-0 h-6" : "top-0.5 h-6"} ${step.branches.length > 0 ? "" : "opacity-50 group-hover:opacity-100"}`}
        >
          {step.branches.length > 0 ? <GitBranch size={12} /> : <span aria-hidden="true">⋮</span>}
        </DropdownMenu.Trigger>
        <MenuFrame width={230}>
          {step.branches.length > 0 && (
            <>
              <MenuLabel>Other steps from the same point</MenuLabel>
              {step.branches.map((b) => (
                <MenuItem
                  key={b.id}
                  onSelect={() => place.change({ step: String(b.id), work: null })}
                  aside={count(b.count)}
                >
                  <span className="max-w-[260px] truncate">{b.label}</span>
                </MenuItem>
              ))}
              <MenuLine />
            </>
          )}
          {others.length > 0 && (
            <>
              <MenuLabel>Compare with</MenuLabel>
              {others.map((o) => (
                <MenuItem key={o.id} onSelect={() => setTimeout(() => onCompare(o.id))}>
                  <span className="max-w-[260px] truncate">{o.label} …</span>
                </MenuItem>
              ))}
              <MenuLine />
            </>
          )}
          <MenuItem onSelect={goHere}>Continue from here</MenuItem>
          {canChange(step) && <MenuItem onSelect={() => setTimeout(onChange)}>Change this step …</MenuItem>}
          <MenuItem onSelect={() => setTimeout(onName)}>{step.named ? "Rename …" : "Save under a name …"}</MenuItem>
          <MenuItem onSelect={onRemove}>Remove this step</MenuItem>
        </MenuFrame>
      </DropdownMenu.Root>
    </li>
  );
}

function NameSheet({ step, reviewId, close }: { step: Step; reviewId: number; close: () => void }) {
  const [name, setName] = useState(step.label);
  const rename = useRenameStep(reviewId);
  return (
    <Sheet
      open
      onOpenChange={close}
      title="Save under a name"
      hint={
        "A named search is listed under “new path”, where you can run it again and see " +
        "what is new. An empty name brings back what the step did."
      }
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          rename.mutate({ stepId: step.id, name }, { onSuccess: close });
        }}
      >
        <Field label="Name" value={name} maxLength={80} onChange={(e) => setName(e.target.value)} className="mb-4" />
        <Button type="submit" kind="primary">
          Name it
        </Button>
      </form>
    </Sheet>
  );
}
