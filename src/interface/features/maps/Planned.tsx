import type { Dto } from "../../api/client";
import { Press } from "../../ui/Press";

/** The work that is held against the set, where it stands or would stand: a lozenge about its mark. */
export function Planned({
  plan,
  at,
  onLook,
  onOpen,
}: {
  plan: Dto<"PlanDto">;
  /** Its centre on the page of the map, in pixels. */
  at: { x: number; y: number };
  onLook: (on: boolean) => void;
  onOpen: () => void;
}) {
  const r = Math.max(13, plan.work.diameter / 2 + 6);
  return (
    <Press
      data-plan={plan.work.id}
      className="absolute z-[6]"
      style={{ left: at.x - r, top: at.y - r, width: 2 * r, height: 2 * r }}
      aria-label={`Compared with the set: ${plan.work.name}, ${plan.work.title}. Cites ${plan.work.cites.length} works here`}
      onPointerEnter={() => onLook(true)}
      onPointerLeave={() => onLook(false)}
      onFocus={() => onLook(true)}
      onBlur={() => onLook(false)}
      onClick={onOpen}
    >
      <svg width={2 * r} height={2 * r} aria-hidden="true" className="pointer-events-none block">
        <path
          d={`M${r} 1L${2 * r - 1} ${r}L${r} ${2 * r - 1}L1 ${r}z`}
          fill={plan.at === null ? "var(--paper)" : "none"}
          stroke="var(--ink)"
          strokeWidth={1.8}
        />
        {plan.at === null && <path d={`M${r - 4} ${r}h8M${r} ${r - 4}v8`} stroke="var(--ink)" strokeWidth={1.6} />}
      </svg>
    </Press>
  );
}
