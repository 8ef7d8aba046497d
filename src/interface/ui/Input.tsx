import type { ComponentProps } from "react";

const box = "rounded-md border border-edge bg-raised px-2";

/** A line to write in, without a label of its own; `className` says its size. */
export function Input({ className = "", ...rest }: ComponentProps<"input">) {
  return <input className={`${box} ${className}`} {...rest} />;
}

/** A choice of a few, without a label of its own; `className` says its size. */
export function Select({ className = "", ...rest }: ComponentProps<"select">) {
  return <select className={`${box} ${className}`} {...rest} />;
}

/** Lines of prose to write. */
export function TextArea({ className = "", ...rest }: ComponentProps<"textarea">) {
  return <textarea className={`${box} w-full py-2.5 font-serif text-[15px] ${className}`} {...rest} />;
}
