/** The key that does what a button says, on the button. */
export function Key({ k }: { k: string }) {
  return <kbd className="rounded border border-current px-1 text-[11.5px] font-normal opacity-80">{k}</kbd>;
}
