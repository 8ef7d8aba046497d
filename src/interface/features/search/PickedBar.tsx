import { useState } from "react";
import { CiteSheet } from "../cite/CiteSheet";
import { Sheet } from "../../ui/Sheet";
import { useMe } from "../identity/useMe";
import { RulingPreview } from "../works/RulingPreview";
import { works } from "../../ui/numbers";
import type { Decide } from "../decisions/useDecisions";
import type { Follow } from "../trails/useTrail";
import type { Picked } from "./usePicked";

const act = "rounded px-2 py-0.5 text-[12.5px] underline decoration-line underline-offset-2 hover:decoration-ink";

/** What can be done with the picked works; it takes the place of the list's head. */
export function PickedBar({
  reviewId,
  picked,
  decide,
  follow,
}: {
  reviewId: number;
  picked: Picked;
  decide: Decide;
  follow: Follow;
}) {
  const [citing, setCiting] = useState(false);
  const [joining, setJoining] = useState(false);
  const me = useMe();
  return (
    <div
      role="toolbar"
      aria-label="Picked works"
      className="flex items-center gap-1 border-b border-pine bg-mist px-[18px] py-1"
    >
      <b className="mr-2 text-[12.5px] font-semibold">{works(picked.ids.length)} picked</b>
      <button type="button" className={act} onClick={() => follow([...picked.ids], "Both")}>
        Trails from them
      </button>
      <button
        type="button"
        className={act}
        onClick={() => {
          decide.many(picked.ids, "Keep");
          picked.clear();
        }}
      >
        Keep them
      </button>
      <button type="button" className={act} onClick={() => setCiting(true)}>
        Cite them
      </button>
      {me.data?.isCurator && picked.ids.length > 1 && (
        <button type="button" className={act} onClick={() => setJoining(true)}>
          They are one work …
        </button>
      )}
      <Sheet open={joining} onOpenChange={setJoining} title="One work?" width={560}>
        <RulingPreview
          ruling={{ join: [...picked.ids] }}
          leave={() => {
            setJoining(false);
            picked.clear();
          }}
        />
      </Sheet>
      <CiteSheet reviewId={reviewId} cited={{ works: picked.ids }} open={citing} close={() => setCiting(false)} />
      <button type="button" className={`${act} ml-auto text-quiet`} onClick={picked.clear}>
        pick none
      </button>
    </div>
  );
}
