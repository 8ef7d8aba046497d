/** Marks a work that was decided on and that every database has deleted since. */
export function Withdrawn() {
  return (
    <span
      className="rounded bg-band px-1.5 text-[11.5px] whitespace-nowrap text-bandtext"
      title="Every database that held it has deleted it. It stays here, with its last values, because it was decided on."
    >
      no longer in any database
    </span>
  );
}
