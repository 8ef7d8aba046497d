import { useState } from "react";
import type { Dto } from "../../api/client";
import { useAddDesk, useDeskBack, useDesks, useRemoveDesk } from "../../set/loan/useLoans";
import { money } from "../../set/loan/words";
import { Button } from "../../ui/Button";
import { Fault } from "../../ui/Fault";
import { Field } from "../../ui/Field";
import { count } from "../../ui/numbers";
import { TextButton } from "../../ui/TextButton";

type Desk = Dto<"LoanDeskDto">;

/** The desks at which readers of a library ask for loans, for curators. */
export function LibraryDesks({ library, identifier }: { library: number; identifier: string }) {
  const desks = useDesks(library).data ?? [];
  const [adding, setAdding] = useState(false);
  return (
    <div className="mt-1 ml-3 border-l border-line pl-3">
      <h4 className="font-semibold">Loan desks</h4>
      {desks.length === 0 && (
        <p className="text-quiet">None, so its readers cannot request items from other libraries here.</p>
      )}
      <ul>
        {desks.map((d) => (
          <DeskLine key={d.id} desk={d} />
        ))}
      </ul>
      {adding ? (
        <AddDesk library={library} identifier={identifier} close={() => setAdding(false)} />
      ) : (
        <TextButton onClick={() => setAdding(true)}>Add a loan desk</TextButton>
      )}
    </div>
  );
}

function DeskLine({ desk: d }: { desk: Desk }) {
  const remove = useRemoveDesk(d.libraryId);
  const [shown, setShown] = useState(false);
  const back = useDeskBack(d.libraryId, shown ? d.id : null).data;
  return (
    <li className="py-1" data-desk={d.supplier}>
      <p>
        {d.name}{" "}
        <span className="text-quiet">
          {[
            d.supplier,
            d.copyCost !== null && `a copy ${money(d.copyCost, d.currency)}`,
            d.lendCost !== null && `a loan ${money(d.lendCost, d.currency)}`,
            d.mostOpen !== null && `at most ${count(d.mostOpen)} open requests a reader`,
          ]
            .filter(Boolean)
            .join(" · ")}
        </span>
      </p>
      <p className="flex flex-wrap gap-x-4 text-quiet">
        <TextButton onClick={() => setShown(!shown)}>{shown ? "Hide its addresses" : "Addresses"}</TextButton>
        <TextButton className="text-quiet" onClick={() => remove.mutate(d.id)}>
          Remove
        </TextButton>
      </p>
      {shown && (
        <dl className="grid grid-cols-[130px_minmax(0,1fr)] gap-x-2 break-all text-quiet">
          <dt>Requests go to</dt>
          <dd>{d.address}</dd>
          <dt>Its answers go to</dt>
          <dd>{back?.address ?? "…"}</dd>
          <dt>In the name of</dt>
          <dd>
            {d.requester}, {d.hasAccount ? "with an account" : "without an account so far"}
          </dd>
        </dl>
      )}
    </li>
  );
}

const empty = {
  name: "",
  supplier: "",
  requester: "",
  address: "",
  copyCost: "",
  lendCost: "",
  currency: "",
  mostOpen: "",
  days: "",
  account: "",
  code: "",
};

const number = (text: string) => (text.trim() === "" ? null : Number(text.replace(",", ".")));

/** Adds a desk that no directory lists. */
function AddDesk({ library, identifier, close }: { library: number; identifier: string; close: () => void }) {
  const add = useAddDesk(library);
  const [form, setForm] = useState({ ...empty, requester: identifier });
  const at = (name: keyof typeof empty) => ({
    value: form[name],
    maxLength: 2000,
    onChange: (e: React.ChangeEvent<HTMLInputElement>) => setForm({ ...form, [name]: e.target.value }),
  });
  const numbers = [form.copyCost, form.lendCost, form.mostOpen, form.days].map(number);
  const ready =
    [form.name, form.supplier, form.requester, form.address].every((t) => t.trim() !== "") &&
    numbers.every((n) => n === null || Number.isFinite(n));
  return (
    <form
      aria-label="Add a loan desk"
      className="mt-2 grid grid-cols-4 gap-x-3 gap-y-2 max-sm:grid-cols-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (ready)
          add.mutate(
            {
              ...form,
              copyCost: number(form.copyCost),
              lendCost: number(form.lendCost),
              mostOpen: number(form.mostOpen),
              days: number(form.days),
              account: form.account.trim() || null,
              code: form.code || null,
            },
            { onSuccess: close },
          );
      }}
    >
      <Field label="Name" className="col-span-2" {...at("name")} />
      <Field label="Supplying library (ISIL)" {...at("supplier")} />
      <Field label="In the name of (ISIL)" {...at("requester")} />
      <Field
        label="Address (ISO 18626)"
        placeholder="https://"
        className="col-span-2"
        hint="Where requests are sent."
        {...at("address")}
      />
      <Field label="Account, if any" autoComplete="off" {...at("account")} />
      <Field label="Its code" type="password" autoComplete="off" hint="Kept encrypted." {...at("code")} />
      <Field label="A copy costs" inputMode="decimal" {...at("copyCost")} />
      <Field label="A loan costs" inputMode="decimal" {...at("lendCost")} />
      <Field label="Currency" placeholder="EUR" {...at("currency")} />
      <Field label="Open requests, at most" inputMode="numeric" {...at("mostOpen")} />
      {add.error && (
        <div className="col-span-full">
          <Fault error={add.error} />
        </div>
      )}
      <div className="col-span-full flex gap-2">
        <Button kind="primary" type="submit" disabled={!ready || add.isPending}>
          Add the desk
        </Button>
        <Button onClick={close}>Leave it</Button>
      </div>
    </form>
  );
}
