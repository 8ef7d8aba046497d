import { useState } from "react";
import type { Dto } from "../../api/client";
import { useLibraries, useSignOutOfLibrary } from "../../set/library/useLibraries";
import { moment } from "../../ui/numbers";
import { TextButton } from "../../ui/TextButton";
import { holdingsWords } from "./holdingsWords";
import { LibrariesSheet } from "./LibrariesSheet";
import { SignInSheet } from "./SignInSheet";

type Library = Dto<"LibraryDto">;

/** The person's own libraries at the foot of Gather: which, with holdings of which day, signed in until when. */
export function LibraryFoot() {
  const libraries = useLibraries().data;
  const [choosing, setChoosing] = useState(false);
  const [signingIn, setSigningIn] = useState<Library | null>(null);
  if (!libraries) return null;
  const mine = libraries.libraries.filter((l) => l.isMine);
  return (
    <section
      aria-label="Your library"
      className="flex shrink-0 flex-wrap items-baseline gap-x-5 gap-y-1 border-t border-line bg-paper px-[18px] py-2 text-[12.5px]"
    >
      <h2 className="text-[13px] font-semibold">{mine.length > 1 ? "Your libraries" : "Your library"}</h2>
      {mine.length === 0 ? (
        <>
          <span className="text-quiet">None is connected; subscriptions are not used.</span>
          <TextButton onClick={() => setChoosing(true)}>Connect your library</TextButton>
        </>
      ) : (
        <>
          {mine.map((l) => (
            <p key={l.id} data-library={l.id}>
              <b className="font-semibold">{l.name}</b>
              {l.town && <span className="text-quiet">, {l.town}</span>}
              <span className="text-quiet"> · {holdingsWords(l)} · </span>
              <SignedIn library={l} onSignIn={() => setSigningIn(l)} />
            </p>
          ))}
          <TextButton className="ml-auto" onClick={() => setChoosing(true)}>
            Change libraries
          </TextButton>
        </>
      )}
      {choosing && <LibrariesSheet close={() => setChoosing(false)} />}
      {signingIn && <SignInSheet library={signingIn} close={() => setSigningIn(null)} />}
    </section>
  );
}

function SignedIn({ library: l, onSignIn }: { library: Library; onSignIn: () => void }) {
  const end = useSignOutOfLibrary();
  if (l.signIn === "None") return <span className="text-quiet">no sign-in needed</span>;
  if (l.signedInAt === null) return <TextButton onClick={onSignIn}>Sign in</TextButton>;
  return (
    <>
      signed in{l.endsAt && ` until ${moment(l.endsAt)}`}{" "}
      <TextButton className="text-quiet" onClick={() => end.mutate(l.id)}>
        end
      </TextButton>
    </>
  );
}
