import { useEffect, useRef } from "react";
import { Link, useSearchParams } from "react-router";
import { useReturn } from "../../set/library/useLibraries";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";

/** Where a library's own sign-in window leads back to. */
export function ReturnPage() {
  const [params] = useSearchParams();
  const taken = useReturn();
  const begun = useRef(false);
  const [state, code] = [params.get("state"), params.get("code")];
  useEffect(() => {
    if (begun.current || !state || !code) return;
    begun.current = true;
    // What is in the address opens the library once; it is of no use to whoever reads it later.
    window.history.replaceState(null, "", window.location.pathname);
    taken.mutate({ state, code });
  }, [state, code, taken]);
  return (
    <main className="p-10">
      <h1 className="mb-3 font-serif text-[19px] font-semibold">Your library</h1>
      {taken.error ? (
        <Fault error={taken.error} />
      ) : taken.data ? (
        <p role="status">You are signed in. Zendle goes on with the works that waited for it.</p>
      ) : state && code ? (
        <p role="status">Confirming the sign-in with the library …</p>
      ) : (
        <p>The library did not sign you in. Begin again from Gather.</p>
      )}
      <p className="mt-4 flex items-center gap-4">
        <Button onClick={() => window.close()}>Close this window</Button>
        <Link to="/" className="underline">
          To your review
        </Link>
      </p>
    </main>
  );
}
