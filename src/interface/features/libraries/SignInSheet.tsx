import { useState } from "react";
import type { Dto } from "../../api/client";
import { useLibraryWindow, useSignInToLibrary } from "../../set/library/useLibraries";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Field } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";

/** Signs a person in at a library, in the way the library wants. */
export function SignInSheet({ library, close }: { library: Dto<"LibraryDto">; close: () => void }) {
  return (
    <Sheet
      open
      onOpenChange={close}
      title={`Sign in to ${library.name}`}
      hint="Zendle stores the library’s session, encrypted, and uses it only to open texts for you, until you end it."
      width={480}
    >
      {library.signIn === "Window" ? <InWindow id={library.id} /> : <ByName id={library.id} close={close} />}
    </Sheet>
  );
}

function ByName({ id, close }: { id: number; close: () => void }) {
  const signIn = useSignInToLibrary();
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  return (
    <form
      className="space-y-3"
      onSubmit={(e) => {
        e.preventDefault();
        signIn.mutate({ id, name, password }, { onSuccess: close });
      }}
    >
      <Field
        label="Card number or name"
        autoComplete="off"
        maxLength={200}
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <Field
        label="Password at the library"
        type="password"
        autoComplete="off"
        maxLength={200}
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        hint="Sent to the library's proxy and not stored."
      />
      {signIn.error && <Fault error={signIn.error} />}
      <Button kind="primary" type="submit" disabled={name === "" || password === "" || signIn.isPending}>
        {signIn.isPending ? "Asking the library …" : "Sign in"}
      </Button>
    </form>
  );
}

function InWindow({ id }: { id: number }) {
  const opening = useLibraryWindow();
  // A window that is opened after an answer came is taken for an advertisement: it opens at once, and is led on.
  const open = () => {
    const window = globalThis.open("about:blank", "_blank", "popup,width=560,height=640");
    opening.mutate(id, {
      onSuccess: (address) => {
        if (window) {
          window.opener = null;
          window.location.href = address;
        } else globalThis.location.href = address;
      },
      onError: () => window?.close(),
    });
  };
  return (
    <>
      <p className="mb-3 text-[13px]">
        This library signs you in on a page of its own. It opens in a new window; when you are done there, the works
        that wait for it are tried again.
      </p>
      {opening.error && <Fault error={opening.error} />}
      <Button kind="primary" onClick={open} disabled={opening.isPending}>
        Open the library’s sign-in page
      </Button>
    </>
  );
}
