import { useState } from "react";
import { useNavigate, useSearchParams } from "react-router";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { CitersSheet } from "../../set/citers/CitersSheet";
import { works } from "../../ui/numbers";
import type { Follow } from "../../set/useTrail";

/** What stands in Trails before one is followed. */
export function StartTrails({ reviewId, kept, follow }: { reviewId: number; kept: number; follow: Follow }) {
  const navigate = useNavigate();
  const [params, setParams] = useSearchParams();
  const [name, setName] = useState("");
  const asked = params.get("cites");
  const ask = (cites: string | null) => setParams(cites === null ? { step: "0" } : { step: "0", cites });
  return (
    <div className="min-h-0 flex-1 overflow-y-auto bg-raised px-[18px] py-10">
      <div className="mx-auto max-w-[640px]">
        <h1 className="mb-2 font-serif text-[19px] font-semibold">Trails start from works</h1>
        <p className="mb-5 text-[14px] text-quiet">
          The backward trail holds what a work cites, the forward trail what cites it; neighbours have references,
          citing works, terms or people in common with it. Start from one work or from many; then narrow, keep and
          export as in any list.
        </p>
        <div className="flex flex-wrap gap-2">
          <Button kind="primary" disabled={kept === 0} onClick={() => follow(null, "Both")}>
            Follow {kept === 0 ? "the kept works" : kept === 1 ? "the kept work" : `the ${works(kept)} kept`}
          </Button>
          <Button disabled={kept === 0} onClick={() => follow(null, "Neighbours")}>
            Their neighbours
          </Button>
          <Button onClick={() => void navigate(`/r/${reviewId}/search`)}>Choose works in Search</Button>
        </div>
        <form
          className="mt-5 flex flex-wrap items-end gap-2"
          onSubmit={(e) => {
            e.preventDefault();
            ask(name.trim());
          }}
        >
          <Field
            label="Or start from a name: who cites it"
            placeholder="Berg, M*"
            value={name}
            onChange={(e) => setName(e.target.value)}
            className="w-[300px] max-w-full"
          />
          <Button type="submit" className="h-9" disabled={name.trim() === ""}>
            Find the name
          </Button>
        </form>
        {asked !== null && (
          <CitersSheet key={asked} reviewId={reviewId} start={asked} ticked={null} close={() => ask(null)} />
        )}
        <p className="mt-5 text-quiet">
          In a list, <kbd className="rounded border border-line px-1">[</kbd> follows the work in view into its past,{" "}
          <kbd className="rounded border border-line px-1">]</kbd> into its future,{" "}
          <kbd className="rounded border border-line px-1">=</kbd> shows its neighbours;{" "}
          <kbd className="rounded border border-line px-1">Space</kbd> picks several.
        </p>
      </div>
    </div>
  );
}
