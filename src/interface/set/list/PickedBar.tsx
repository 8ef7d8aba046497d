import { useState } from "react";
import { AsideSheet } from "../decide/AsideSheet";
import { CiteSheet } from "../take/CiteSheet";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";
import { useMe } from "../../review/useMe";
import { RulingPreview } from "../work/RulingPreview";
import { useSeek } from "../work/useGather";
import { works } from "../../ui/numbers";
import type { Decide } from "../decide/useDecisions";
import type { Follow } from "../useTrail";
import type { Picked } from "./usePicked";
import { Press } from "../../ui/Press";

const act =
  "rounded px-1.5 py-0.5 text-[12.5px] whitespace-nowrap underline decoration-line underline-offset-2 hover:decoration-ink";

/** What can be done with the picked works; it takes the place of the list's head. */
export function PickedBar({
  reviewId,
  picked,
  decide,
  follow,
  onPin,
  onOnly,
}: {
  reviewId: number;
  picked: Picked;
  decide: Decide;
  follow: Follow;
  /** Puts their cards side by side, where there is room for that. */
  onPin?: () => void;
  /** Leaves only the picked works in view: a step of the path. */
  onOnly: () => void;
}) {
  const [citing, setCiting] = useState(false);
  const [joining, setJoining] = useState(false);
  const [aside, setAside] = useState(false);
  const [tagging, setTagging] = useState(false);
  const me = useMe();
  const seek = useSeek(reviewId);
  return (
    <div
      role="toolbar"
      aria-label="Picked works"
      className="flex items-center gap-1 border-b border-pine bg-mist px-[18px] py-1"
    >
      <b className="mr-2 text-[12.5px] font-semibold whitespace-nowrap">{works(picked.ids.length)} picked</b>
      <Press className={act} onClick={() => follow([...picked.ids], "Both")}>
        Follow trails
      </Press>
      <Press className={act} onClick={() => follow([...picked.ids], "Neighbours")}>
        Their neighbours
      </Press>
      <Press
        className={act}
        onClick={() => {
          decide.many(picked.ids, "Keep");
          picked.clear();
        }}
      >
        Keep them
      </Press>
      <Press className={act} onClick={() => setAside(true)}>
        Set aside …
      </Press>
      <Press className={act} onClick={() => setTagging(true)}>
        Tag …
      </Press>
      <Press className={act} onClick={() => setCiting(true)}>
        Cite them
      </Press>
      <Press className={act} onClick={() => seek.mutate({ works: [...picked.ids], again: false })}>
        Gather their texts
      </Press>
      {onPin && (
        <Press className={act} onClick={onPin}>
          Side by side
        </Press>
      )}
      <Press className={act} onClick={onOnly}>
        Only these
      </Press>
      {me.data?.isCurator && picked.ids.length > 1 && (
        <Press className={act} onClick={() => setJoining(true)}>
          One work …
        </Press>
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
      <AsideSheet
        open={aside}
        close={() => setAside(false)}
        reviewId={reviewId}
        onReason={(reason) => {
          decide.many(picked.ids, "SetAside", reason);
          picked.clear();
        }}
      />
      <TagMany
        open={tagging}
        close={() => setTagging(false)}
        onTag={(tag) => {
          decide.many(picked.ids, "Tag", tag);
          picked.clear();
        }}
      />
      <CiteSheet reviewId={reviewId} cited={{ works: picked.ids }} open={citing} close={() => setCiting(false)} />
      <Press className={`${act} ml-auto text-quiet`} onClick={picked.clear}>
        clear selection
      </Press>
    </div>
  );
}

/** One tag for all that is picked. */
function TagMany({ open, close, onTag }: { open: boolean; close: () => void; onTag: (tag: string) => void }) {
  const [tag, setTag] = useState("");
  return (
    <Sheet open={open} onOpenChange={close} title="Tag them" width={400}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (tag.trim() === "") return;
          onTag(tag.trim());
          setTag("");
          close();
        }}
      >
        <Field label="Tag" value={tag} maxLength={60} onChange={(e) => setTag(e.target.value)} className="mb-4" />
        <Button type="submit" kind="primary" disabled={tag.trim() === ""}>
          Tag them
        </Button>
      </form>
    </Sheet>
  );
}
