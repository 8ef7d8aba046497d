import { useMe, usePutAway } from "../review/useMe";
import { Button } from "../ui/Button";

/** What everyone is to know of the installation: a lost corpus, a start that is not through. */
export function Announcement() {
  const me = useMe();
  const putAway = usePutAway();
  const announcement = me.data?.announcement;
  if (!announcement) return null;
  return (
    <div role="status" className="flex items-start gap-4 border-b border-line bg-soft px-[18px] py-2 text-[13px]">
      <p className="min-w-0 flex-1 break-words">{announcement.text}</p>
      {announcement.canBePutAway && (
        <Button onClick={() => putAway.mutate(undefined)} disabled={putAway.isPending}>
          I have read it
        </Button>
      )}
    </div>
  );
}
