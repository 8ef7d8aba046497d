import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";
import { useNavigate, useParams } from "react-router";
import { TextButton } from "../../ui/TextButton";
import { MenuFrame, MenuItem } from "../../ui/Menu";
import type { Ask } from "../useAsk";

/** A person, a venue or a term that a work names; a click asks what to do with it. */
export function AskFor({
  expression,
  person,
  name,
  ask,
  title,
  className = "",
  children,
}: {
  expression: string;
  /** Who it is, where a person is told apart from others of the name. */
  person?: string | null;
  /** The name of a person, so that it can be asked who cites it. */
  name?: string;
  ask: Ask;
  title?: string;
  className?: string;
  children: ReactNode;
}) {
  const { narrow, anew } = ask;
  const navigate = useNavigate();
  const { reviewId } = useParams();
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
        {name && (
          <MenuItem onSelect={() => void navigate(`/r/${reviewId}/trails?step=0&cites=${encodeURIComponent(name)}`)}>
            See who cites this name
          </MenuItem>
        )}
      </MenuFrame>
    </DropdownMenu.Root>
  );
}
