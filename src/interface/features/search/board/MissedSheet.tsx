import { Fault } from "../../../ui/Fault";
import { Sheet } from "../../../ui/Sheet";
import { count } from "../../../ui/numbers";
import type { SetsOfLine } from "../../../set/useOpenSet";
import { useMissedKept } from "./useMissedKept";
import { TextButton } from "../../../ui/TextButton";

/** By the way: which kept works the search does not find, and through which of its parts. */
export function MissedSheet({
  reviewId,
  stepId,
  line,
  sets,
  close,
}: {
  reviewId: number;
  stepId: number;
  line: string;
  sets: SetsOfLine;
  close: () => void;
}) {
  const missed = useMissedKept(reviewId, stepId, line);
  const data = missed.data;
  const name = (card: number) => {
    const by = data?.by.find((b) => b.card === card);
    return by?.letter ?? by?.text ?? "";
  };
  const open = (works: readonly number[], said: string) => {
    close();
    sets.these(works, said);
  };
  return (
    <Sheet
      open
      onOpenChange={close}
      width={680}
      title={data ? `Kept, but not found: ${count(data.total)}` : "Kept, but not found"}
      hint="Kept works that this search does not find (before narrowing), and the parts of the search they do not match."
    >
      {missed.error && <Fault error={missed.error} />}
      {data && (
        <>
          <table className="mb-3 w-full text-[13px]">
            <thead>
              <tr className="text-[11.5px] text-faint">
                <th className="text-left font-normal">part of the search</th>
                <th className="w-[110px] text-right font-normal">do not match it</th>
                <th className="w-[150px] text-right font-normal">match everything else</th>
              </tr>
            </thead>
            <tbody>
              {data.by.map((b) => (
                <tr key={b.card} className="border-t border-soft">
                  <td className="max-w-0 truncate py-1" title={b.text}>
                    {b.letter && <span className={`concept concept-${b.letter} mr-2 font-semibold`}>{b.letter}</span>}
                    {b.text}
                  </td>
                  <td className="text-right">{count(b.works)}</td>
                  <td className="text-right font-semibold">{count(b.onlyIt)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <ul className="max-h-[38vh] overflow-y-auto border-y border-line bg-raised">
            {data.works.map((w) => (
              <li
                key={w.workId}
                className="grid grid-cols-[40px_minmax(0,1fr)_120px] items-baseline gap-2 border-b border-soft px-2 py-1 text-[13px]"
              >
                <span className="text-[12px] text-quiet">{w.year ?? "n.d."}</span>
                <span className="truncate font-serif" title={w.title}>
                  {w.title}
                </span>
                <span className="text-right text-[12px] text-quiet">
                  {w.by.length > 0 ? `not ${w.by.map(name).join(", ")}` : "no single record has all of them"}
                </span>
              </li>
            ))}
          </ul>
          <TextButton
            className="mt-3 text-[13px] font-semibold"
            onClick={() =>
              open(
                data.works.map((w) => w.workId),
                "kept, but not found",
              )
            }
          >
            Show them as a list
          </TextButton>
        </>
      )}
    </Sheet>
  );
}
