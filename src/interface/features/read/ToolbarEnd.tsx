import { Button } from "../../ui/Button";
import { useReading, useSayRead } from "./useReading";

/** How the tools above a text are laid out. */
export const toolbar = `flex h-11 shrink-0 items-center gap-3 border-b border-line px-3 max-sm:h-auto max-sm:flex-wrap
        max-sm:gap-y-1.5 max-sm:py-1.5`;

/** What the tools of every text end with: its version, its file, its record. */
export function ToolbarEnd({
  version,
  file,
  fileName,
  record,
  reviewId,
  textId,
}: {
  version: string | null;
  file: string;
  fileName: string;
  record: { open: boolean; flip: () => void };
  reviewId: number;
  textId: number;
}) {
  const isRead =
    useReading(reviewId).data?.some(
      (r) => r.state === "Read" && (r.textId === textId || r.others.some((o) => o.textId === textId)),
    ) ?? false;
  const sayRead = useSayRead(reviewId);
  return (
    <>
      {version && <span className="text-[12.5px] whitespace-nowrap text-quiet max-[1350px]:hidden">{version}</span>}
      <a
        href={file}
        title={fileName}
        className="text-[12.5px] whitespace-nowrap underline decoration-line underline-offset-2 hover:decoration-ink"
      >
        save
      </a>
      <Button className="h-7" aria-pressed={isRead} onClick={() => sayRead.mutate({ textId, isRead: !isRead })}>
        {isRead ? "Read" : "Mark as read"}
      </Button>
      <Button className="h-7" aria-pressed={record.open} onClick={record.flip}>
        Record
      </Button>
    </>
  );
}
