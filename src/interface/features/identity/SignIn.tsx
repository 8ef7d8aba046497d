import { useState } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Field } from "../../ui/Field";
import { Logo } from "../../ui/Logo";
import { useFirstAccount, useSignIn } from "../../review/useMe";

/** The page before everything: sign in, or make the first account of a new installation. */
export function SignIn({ me }: { me: Dto<"MeDto"> }) {
  return (
    <main className="grid h-full grid-cols-[minmax(0,5fr)_minmax(0,4fr)] overflow-auto">
      <section className="flex flex-col justify-between bg-rail p-12 text-white">
        <div className="flex items-center gap-3">
          <Logo />
          <span className="font-serif text-[22px] font-semibold">Zendle</span>
        </div>
        <div>
          <p className="max-w-[26ch] font-serif text-[34px] leading-[1.15]">
            What was searched, what came back, what was kept, and why.
          </p>
          <Stair />
        </div>
        <p className="text-[12.5px] text-[#AFC7BD]">Version {me.version}</p>
      </section>
      <section className="flex items-center justify-center p-10">
        {me.needsFirstAccount ? <FirstAccount /> : <SignInForm me={me} />}
      </section>
    </main>
  );
}

function Stair() {
  return (
    <svg viewBox="0 0 420 90" className="mt-8 w-[420px] max-w-full" aria-hidden="true">
      <rect y="72" width="420" height="9" fill="#E3B95A" opacity=".3" />
      <path d="M0 12H84V34H168V55H252V64H336V76H420" fill="none" stroke="#8FC3B1" strokeWidth="2" />
      <path d="M0 12H84V34H168V55H252V64H336V76H420V90H0Z" fill="#8FC3B1" opacity=".13" />
    </svg>
  );
}

function SignInForm({ me }: { me: Dto<"MeDto"> }) {
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const signIn = useSignIn();
  return (
    <form
      className="w-full max-w-[340px]"
      onSubmit={(e) => {
        e.preventDefault();
        signIn.mutate({ name, password });
      }}
    >
      <h1 className="mb-5 font-serif text-[24px] font-semibold">Sign in</h1>
      {me.demo && (
        <div className="mb-6 rounded-md border border-line bg-raised p-4">
          <p className="mb-3 text-[13px] text-quiet">
            This is the demo: made-up works, people and databases, and a review in the middle of its work.
          </p>
          <Button
            kind="primary"
            className="w-full justify-center"
            disabled={signIn.isPending}
            onClick={() => {
              if (me.demo) signIn.mutate(me.demo);
            }}
          >
            Look around as the demo researcher
          </Button>
        </div>
      )}
      <Field
        label="Name"
        autoComplete="username"
        value={name}
        onChange={(e) => setName(e.target.value)}
        className="mb-3"
        required
      />
      <Field
        label="Password"
        type="password"
        autoComplete="current-password"
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        className="mb-4"
        required
      />
      <Button type="submit" kind={me.demo ? "plain" : "primary"} disabled={signIn.isPending}>
        Sign in
      </Button>
      {signIn.error && <div className="mt-4">{<Fault error={signIn.error} />}</div>}
    </form>
  );
}

function FirstAccount() {
  const [code, setCode] = useState("");
  const [name, setName] = useState("");
  const [displayName, setDisplayName] = useState("");
  const [password, setPassword] = useState("");
  const first = useFirstAccount();
  return (
    <form
      className="w-full max-w-[340px]"
      onSubmit={(e) => {
        e.preventDefault();
        first.mutate({ code, name, displayName, password });
      }}
    >
      <h1 className="mb-1 font-serif text-[24px] font-semibold">The first account</h1>
      <p className="mb-5 text-[13px] text-quiet">
        Enter the code from the terminal to become the curator of this installation.
      </p>
      <Field
        label="Code"
        value={code}
        onChange={(e) => setCode(e.target.value)}
        className="mb-3"
        hint="Four groups of four, as printed when Zendle started"
        required
      />
      <Field
        label="Name to sign in with"
        value={name}
        onChange={(e) => setName(e.target.value)}
        className="mb-3"
        autoComplete="username"
        required
      />
      <Field
        label="Name others see"
        value={displayName}
        onChange={(e) => setDisplayName(e.target.value)}
        className="mb-3"
        required
      />
      <Field
        label="Password"
        type="password"
        value={password}
        onChange={(e) => setPassword(e.target.value)}
        className="mb-4"
        autoComplete="new-password"
        hint="At least 10 characters"
        required
      />
      <Button type="submit" kind="primary" disabled={first.isPending}>
        Make the account
      </Button>
      {first.error && <div className="mt-4">{<Fault error={first.error} />}</div>}
    </form>
  );
}
