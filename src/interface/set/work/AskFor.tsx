import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";
import { TextButton } from "../../ui/TextButton";
import { MenuFrame, MenuItem } from "../../ui/Menu";
import type { Ask } from "../useAsk";

/** A person, a venue or a term that a work names; a click asks what to do with it. */
export function AskFor({
  expression,
  person,
  ask,
  title,
  className = "",
  children,
}: {
  expression: string;
  /** Who it is, where a person is told apart from others of the name. */
  person?: string | null;
  ask: Ask;
  title?: string;
  className?: string;
  children: ReactNode;
}) {
  const { narrow, anew } = ask;
  const asked = { expression, person };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <TextButton title={title} className={`text-left ${className}`}>
          {children}
        </TextButton>
      </DropdownMenu.Trigger>
      <MenuFrame width={200}>
        {narrow && (
          <MenuItem onSelect={() => narrow(asked)}>Narrow this list to {person ? "this person" : "it"}</MenuItem>
        )}
        <MenuItem onSelect={() => anew(asked)}>Start a new search</MenuItem>
      </MenuFrame>
    </DropdownMenu.Root>
  );
}
