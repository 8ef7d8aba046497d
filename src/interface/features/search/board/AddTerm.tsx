import { useState } from "react";

/** A field that takes a term: Enter adds it and stays for the next, Escape leaves. */
export function AddTerm({
  label,
  placeholder,
  initial = "",
  focus = false,
  onAdd,
  onLeave,
}: {
  label: string;
  placeholder: string;
  initial?: string;
  focus?: boolean;
  onAdd: (text: string) => void;
  onLeave?: () => void;
}) {
  const [text, setText] = useState(initial);
  return (
    <input
      value={text}
      autoFocus={focus}
      onChange={(e) => setText(e.target.value)}
      onFocus={(e) => e.currentTarget.select()}
      onBlur={() => onLeave?.()}
      onKeyDown={(e) => {
        if (e.key === "Escape") {
          setText(initial);
          if (onLeave) onLeave();
          else e.currentTarget.blur();
        }
        if (e.key === "Enter" && text.trim() !== "") {
          e.preventDefault();
          onAdd(text.trim());
          if (initial === "") setText("");
        }
      }}
      aria-label={label}
      placeholder={placeholder}
      spellCheck={false}
      autoComplete="off"
      className={`h-[20px] w-full min-w-0 rounded border border-transparent bg-transparent px-0.5 text-[12.5px]
        placeholder:text-faint hover:border-line focus:border-pine focus:bg-paper`}
    />
  );
}
