import { useState } from "react";
import { useAddLibrary } from "../../set/library/useLibraries";
import { FileInput } from "../../ui/Input";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { TextButton } from "../../ui/TextButton";

const empty = { name: "", town: "", country: "", holdingsAddress: "", resolver: "", proxyPrefix: "" };

/** Adds a library that no directory lists: its holdings as a file or by address, its link resolver, its proxy. */
export function AddLibrary({ close }: { close: () => void }) {
  const add = useAddLibrary();
  const [form, setForm] = useState(empty);
  const [asksPassword, setAsksPassword] = useState(false);
  const [file, setFile] = useState<File | null>(null);
  const at = (name: keyof typeof empty) => ({
    value: form[name],
    maxLength: 2000,
    onChange: (e: React.ChangeEvent<HTMLInputElement>) => setForm({ ...form, [name]: e.target.value }),
  });
  const ready = form.name.trim() !== "" && (form.holdingsAddress.trim() !== "" || file !== null) && !add.isPending;
  return (
    <form
      aria-label="Add a library"
      className="grid grid-cols-2 gap-x-4 gap-y-3 max-sm:grid-cols-1"
      onSubmit={(e) => {
        e.preventDefault();
        if (ready)
          add.mutate(
            {
              body: {
                name: form.name,
                town: form.town || null,
                country: form.country || null,
                holdingsAddress: form.holdingsAddress.trim() || null,
                resolver: form.resolver.trim() || null,
                proxyPrefix: form.proxyPrefix.trim() || null,
                asksPassword,
              },
              file: form.holdingsAddress.trim() === "" ? file : null,
            },
            { onSuccess: close },
          );
      }}
    >
      <Field label="Name" {...at("name")} />
      <div className="grid grid-cols-2 gap-3">
        <Field label="Town" {...at("town")} />
        <Field label="Country" {...at("country")} />
      </div>
      <Field
        label="Address of its holdings (KBART)"
        placeholder="https://"
        hint="Fetched now and every week."
        {...at("holdingsAddress")}
      />
      <label className="text-[12.5px]">
        <span className="mb-1 block font-semibold">or a file of holdings</span>
        <FileInput
          accept=".tsv,.txt,.csv,text/tab-separated-values,text/plain"
          aria-label="File of holdings"
          className="block"
          onChange={(e) => setFile(e.target.files?.[0] ?? null)}
        />
      </label>
      <Field label="Link resolver (OpenURL)" placeholder="https://" {...at("resolver")} />
      <Field
        label="Proxy prefix"
        placeholder="https://…?url="
        hint="The part put before an address to open it from off campus."
        {...at("proxyPrefix")}
      />
      <label className="col-span-2 flex items-center gap-2 text-[13px] max-sm:col-span-1">
        <input type="checkbox" checked={asksPassword} onChange={(e) => setAsksPassword(e.target.checked)} />
        Its proxy asks readers for name and password
      </label>
      <p className="col-span-2 flex items-center gap-4 max-sm:col-span-1">
        <Button kind="primary" type="submit" disabled={!ready}>
          Add this library
        </Button>
        <TextButton className="text-quiet" onClick={close}>
          Cancel
        </TextButton>
      </p>
    </form>
  );
}
