import { useState } from "react";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Sheet } from "../../ui/Sheet";
import { Formats } from "./Formats";
import { useLookAgain, useSetFormat } from "../../review/useDatabases";

/** Takes another format of a database: what each tells is shown first; then everything is harvested in the new one. */
export function ChangeFormat({
  id,
  name,
  format,
  close,
}: {
  id: number;
  name: string;
  format: string;
  close: () => void;
}) {
  const look = useLookAgain(id);
  const set = useSetFormat();
  const [chosen, setChosen] = useState(format);
  return (
    <Sheet
      open
      onOpenChange={close}
      title={`Formats of ${name}`}
      hint={`It is harvested as ${format}. Changing the format harvests everything again; works, decisions and notes stay.`}
      width={860}
    >
      {look.isPending && <p className="text-[13px] text-quiet">Fetching the first records in each format …</p>}
      {look.error && <Fault error={look.error} again={() => void look.refetch()} />}
      {look.data && (
        <>
          <Formats formats={look.data.formats} best={look.data.bestFormat} chosen={chosen} choose={setChosen} />
          {set.error && (
            <div className="mt-4">
              <Fault error={set.error} />
            </div>
          )}
          <div className="mt-4 flex gap-2">
            <Button
              kind="primary"
              disabled={chosen === format || set.isPending}
              onClick={() => set.mutate({ id, format: chosen }, { onSuccess: close })}
            >
              {chosen === format ? `It is harvested as ${format}` : `Harvest everything as ${chosen}`}
            </Button>
            <Button onClick={close}>Cancel</Button>
          </div>
        </>
      )}
    </Sheet>
  );
}
