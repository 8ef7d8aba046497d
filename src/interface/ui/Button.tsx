import type { ButtonHTMLAttributes } from "react";

const kinds = {
  primary: "bg-pine text-onpine font-semibold border border-pine hover:opacity-90",
  plain: "bg-raised text-ink border border-edge hover:border-ink",
  bare: "text-ink border border-transparent hover:bg-soft",
};

/** A button. The primary one is the one act a screen is about. */
export function Button({
  kind = "plain",
  className = "",
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { kind?: keyof typeof kinds }) {
  return (
    <button
      type="button"
      className={`inline-flex h-8 items-center gap-2 rounded-md px-3 text-[13px] whitespace-nowrap
        disabled:cursor-not-allowed disabled:opacity-50 ${kinds[kind]} ${className}`}
      {...rest}
    />
  );
}

/** How the small buttons in the bars above lists look, for triggers of menus and sheets. */
export const barButton =
  "h-[26px] rounded-md border border-edge/70 bg-raised px-2 text-[12.5px] whitespace-nowrap text-quiet " +
  "hover:border-ink disabled:opacity-50";
