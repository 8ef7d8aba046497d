import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { StageMark } from "../../ui/StageMark";
import type { Decide } from "../decide/useDecisions";
import { Key } from "../../ui/Key";

/** What can be done with the work in the pane, each with its key. */
export function WorkActs({
  work,
  decide,
  onAside,
  onTag,
  onCite,
}: {
  work: Dto<"WorkDto">;
  decide: Decide;
  onAside: (id: number) => void;
  onTag: (id: number) => void;
  onCite: () => void;
}) {
  const { stage } = work.judgement;
  return (
    <div
      className={`flex shrink-0 items-center gap-2 border-t border-line bg-paper px-[18px] py-2 max-[1150px]:gap-1.5
        max-[1150px]:px-3 max-[1150px]:[&>button]:px-2`}
    >
      {stage === "Kept" ? (
        <Button onClick={() => decide.one(work.id, "Clear")}>
          <StageMark stage="Kept" /> Kept
        </Button>
      ) : (
        <Button kind="primary" onClick={() => decide.one(work.id, "Keep")}>
          Keep <Key k="P" />
        </Button>
      )}
      <Button onClick={stage === "SetAside" ? () => decide.one(work.id, "Clear") : () => onAside(work.id)}>
        {stage === "SetAside" ? (
          <>
            <StageMark stage={stage} /> Set aside
          </>
        ) : (
          <>
            Set aside <Key k="X" />
          </>
        )}
      </Button>
      <Button onClick={() => onTag(work.id)}>
        Tag <Key k="T" />
      </Button>
      <Button onClick={onCite}>
        Cite <Key k="C" />
      </Button>
    </div>
  );
}
