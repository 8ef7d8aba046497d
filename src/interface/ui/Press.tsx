import type { ButtonHTMLAttributes, Ref } from "react";

/** What can be pressed and looks like what it holds: a row, a tile, a number, a title. */
export function Press(attributes: ButtonHTMLAttributes<HTMLButtonElement> & { ref?: Ref<HTMLButtonElement> }) {
  return <button type="button" {...attributes} />;
}
