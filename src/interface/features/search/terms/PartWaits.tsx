import { Fault } from "../../../ui/Fault";

/** What a part of the pane shows until its answer is there: its shape, or why there is none. */
export function PartWaits({ error }: { error: Error | null }) {
  return (
    <div className="p-[18px]" aria-busy={error === null}>
      {error !== null ? (
        <Fault error={error} />
      ) : (
        <>
          <div className="shape mb-3 h-16 w-full" />
          <div className="shape mb-3 h-16 w-full" />
          <div className="shape h-16 w-full" />
        </>
      )}
    </div>
  );
}
