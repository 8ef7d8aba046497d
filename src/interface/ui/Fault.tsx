import { Problem } from "../api/client";
import { Button } from "./Button";

/** Says what went wrong and what to do. */
export function Fault({ error, again }: { error: unknown; again?: () => void }) {
  const sentence = error instanceof Error ? error.message : "Something went wrong.";
  const act = error instanceof Problem ? error.act : null;
  return (
    <div role="alert" className="border-l-[3px] border-aside py-1 pl-3">
      <p className="font-serif text-[15px]">{sentence}</p>
      {act && <p className="text-[13px] text-quiet">{act}</p>}
      {again && (
        <Button className="mt-2" onClick={again}>
          Try again
        </Button>
      )}
    </div>
  );
}
