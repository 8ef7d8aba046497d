import type { ButtonHTMLAttributes, Ref } from "react";

type Attributes = ButtonHTMLAttributes<HTMLButtonElement> & { ref?: Ref<HTMLButtonElement> };

/** An act that reads like a word of the text around it: underlined, no frame. */
export function TextButton({ className = "", ...rest }: Attributes) {
  return (
    <button
      type="button"
      className={`underline decoration-line underline-offset-2 hover:decoration-ink disabled:no-underline ${className}`}
      {...rest}
    />
  );
}

/** What can be pressed and looks like what it holds: a row, a tile, a number, a title. */
export function Press(attributes: Attributes) {
  return <button type="button" {...attributes} />;
}
