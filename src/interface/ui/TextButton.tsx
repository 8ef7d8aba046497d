import type { ComponentProps } from "react";
import { Press } from "./Press";

/** An act that reads like a word of the text around it: underlined, no frame. */
export function TextButton({ className = "", ...rest }: ComponentProps<typeof Press>) {
  return (
    <Press
      className={`underline decoration-line underline-offset-2 hover:decoration-ink disabled:no-underline ${className}`}
      {...rest}
    />
  );
}
