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

/** A file to choose, with its name beside the button. */
export function FileInput({ className = "", ...rest }: Omit<ComponentProps<"input">, "type">) {
  return (
    <input
      type="file"
      className={`text-[13px] text-quiet file:mr-2 file:h-8 file:cursor-pointer file:rounded-md file:border file:border-edge
        file:bg-raised file:px-3 file:text-[13px] file:font-semibold file:text-ink hover:file:border-ink ${className}`}
      {...rest}
    />
  );
}
