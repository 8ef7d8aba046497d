import { useState } from "react";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Field } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";
import type { MapLook } from "./useMap";
import { useSaveMap, type NamedMap } from "./useNamedMaps";

/** Gives a map a name, so that it stays with the review. */
export function SaveMapSheet({
  reviewId,
  stepId,
  look,
  over,
  close,
  onSaved,
}: {
  reviewId: number;
  stepId: number;
  look: MapLook;
  /** The named map that is open; null for none. */
  over: NamedMap | null;
  close: () => void;
  onSaved: (id: number) => void;
}) {
  const [name, setName] = useState(over?.name ?? "");
  const save = useSaveMap(reviewId, (id) => {
    onSaved(id);
    close();
  });
  const put = (id: number | null) => save.mutate({ id, name, stepId, look });
  return (
    <Sheet
      open
      onOpenChange={close}
      title="Save this map"
      hint="Its set, lanes, sizes, pinned cards and what was folded or renamed. Everyone in the review sees it under Map."
    >
      <form
        onSubmit={(e) => {
          e.preventDefault();
          put(over?.id ?? null);
        }}
      >
        <Field
          label="Name"
          value={name}
          maxLength={120}
          autoFocus
          onChange={(e) => setName(e.target.value)}
          className="mb-4"
        />
        {save.error && (
          <div className="mb-3">
            <Fault error={save.error} />
          </div>
        )}
        <div className="flex gap-2">
          <Button type="submit" kind="primary" disabled={name.trim() === "" || save.isPending}>
            {over ? `Save over “${over.name}”` : "Save"}
          </Button>
          {over && (
            <Button disabled={name.trim() === "" || save.isPending} onClick={() => put(null)}>
              Save as another map
            </Button>
          )}
        </div>
      </form>
    </Sheet>
  );
}
