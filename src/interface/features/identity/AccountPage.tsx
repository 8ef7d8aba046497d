import { useState, type ReactNode } from "react";
import { useParams } from "react-router";
import { useLetterKeys } from "../../ui/keys";
import { useTheme, type Theme } from "../../ui/theme";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Field } from "../../ui/Field";
import { useSay } from "../../ui/Toasts";
import { ReviewSettings } from "./ReviewSettings";
import { useAddAccount, useChangePassword, useMe, useSignOut } from "../../review/useMe";

/** The person's own settings: password, look, keys, sign out; the review's settings; for curators, new accounts. */
export function AccountPage() {
  const me = useMe();
  const signOut = useSignOut();
  const reviewId = Number(useParams()["reviewId"] ?? 0);
  if (!me.data) return null;
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-8">
      <div className="flex items-baseline gap-4">
        <h1 className="font-serif text-[22px] font-semibold">{me.data.displayName}</h1>
        <span className="text-quiet">
          signs in as {me.data.name}
          {me.data.isCurator && ", curator of this installation"}
        </span>
        <Button className="ml-auto" onClick={() => signOut.mutate(undefined)}>
          Sign out
        </Button>
      </div>
      <div className="mt-6 grid grid-cols-2 gap-6 max-[1100px]:grid-cols-[minmax(0,1fr)]">
        {reviewId > 0 && <ReviewSettings reviewId={reviewId} />}
        <ChangePassword />
        <Look />
        {me.data.isCurator && <AddAccount />}
      </div>
      <p className="mt-6 text-[12.5px] text-quiet">
        Zendle {me.data.version}. Curators: {me.data.curators.join(", ")}.
      </p>
    </div>
  );
}

export function Card({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section className="h-fit rounded-md border border-line bg-raised p-5">
      <h2 className="mb-3 font-serif text-[16px] font-semibold">{title}</h2>
      {children}
    </section>
  );
}

function ChangePassword() {
  const [current, setCurrent] = useState("");
  const [next, setNext] = useState("");
  const change = useChangePassword();
  const say = useSay();
  return (
    <Card title="Password">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          change.mutate(
            { current, next },
            {
              onSuccess: () => {
                setCurrent("");
                setNext("");
                say("The password is changed.");
              },
            },
          );
        }}
      >
        <Field
          label="Current password"
          type="password"
          autoComplete="current-password"
          value={current}
          onChange={(e) => setCurrent(e.target.value)}
          className="mb-3"
          required
        />
        <Field
          label="New password"
          type="password"
          autoComplete="new-password"
          value={next}
          onChange={(e) => setNext(e.target.value)}
          hint="At least 10 characters"
          className="mb-3"
          required
        />
        <Button type="submit" disabled={change.isPending}>
          Change the password
        </Button>
        {change.error && <div className="mt-3">{<Fault error={change.error} />}</div>}
      </form>
    </Card>
  );
}

const themes: [Theme, string][] = [
  ["system", "as in the system"],
  ["light", "light"],
  ["dark", "dark"],
];

function Look() {
  const [theme, setTheme] = useTheme();
  const [letters, setLetters] = useLetterKeys();
  return (
    <Card title="Look and keys">
      <fieldset>
        <legend className="mb-1 text-[12.5px] font-semibold">Theme</legend>
        {themes.map(([value, word]) => (
          <label key={value} className="mr-5 inline-flex items-center gap-1.5">
            <input
              type="radio"
              name="theme"
              checked={theme === value}
              onChange={() => setTheme(value)}
              className="accent-[var(--pine)]"
            />
            {word}
          </label>
        ))}
      </fieldset>
      <label className="mt-4 flex items-center gap-2">
        <input
          type="checkbox"
          checked={letters}
          onChange={(e) => setLetters(e.target.checked)}
          className="accent-[var(--pine)]"
        />
        Single letters act (J, K, P, X …); press ? to see them
      </label>
    </Card>
  );
}

function AddAccount() {
  const [name, setName] = useState("");
  const [displayName, setDisplayName] = useState("");
  const [password, setPassword] = useState("");
  const add = useAddAccount();
  const say = useSay();
  return (
    <Card title="Add an account">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          add.mutate(
            { name, displayName, password },
            {
              onSuccess: () => {
                say(`${displayName || name} can sign in now.`);
                setName("");
                setDisplayName("");
                setPassword("");
              },
            },
          );
        }}
      >
        <Field
          label="Name to sign in with"
          value={name}
          onChange={(e) => setName(e.target.value)}
          className="mb-3"
          autoComplete="off"
          required
        />
        <Field
          label="Name others see"
          value={displayName}
          onChange={(e) => setDisplayName(e.target.value)}
          className="mb-3"
          autoComplete="off"
        />
        <Field
          label="First password"
          type="password"
          value={password}
          onChange={(e) => setPassword(e.target.value)}
          className="mb-3"
          autoComplete="new-password"
          hint="At least 10 characters; they can change it"
          required
        />
        <Button type="submit" disabled={add.isPending}>
          Add
        </Button>
        {add.error && <div className="mt-3">{<Fault error={add.error} />}</div>}
      </form>
    </Card>
  );
}
