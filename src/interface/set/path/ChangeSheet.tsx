import { useState } from "react";
import type { Dto } from "../../api/client";
import { Button } from "../../ui/Button";
import { Field } from "../../ui/Field";
import { Sheet } from "../../ui/Sheet";
import { FacetValues, useFacetChoice } from "../narrow/FacetValues";
import { useChangeStep } from "./useStep";
import type { ActOf, Place, StepAct } from "../useSet";

type Step = Dto<"PathStepDto">;

const changeable: readonly StepAct["kind"][] = ["Search", "Add", "Years", "Narrow", "Inside", "Ties"];

/** Whether a step can be written anew where it stands. */
export const canChange = (step: Step): boolean => changeable.includes(step.act.kind);

/** A step written anew where it stands; what follows it is counted again. */
export function ChangeSheet({ place, step, close }: { place: Place; step: Step; close: () => void }) {
  const change = useChangeStep(place.reviewId, step.id, close);
  return (
    <Sheet open onOpenChange={close} title="Change this step" hint="The steps after it stay, and are counted again.">
      <Form place={place} step={step} save={change.mutate} pending={change.isPending} />
      {change.error && <p className="mt-3 text-[13px] text-aside">{change.error.message}</p>}
    </Sheet>
  );
}

/** What can be changed of an act, by its kind. */
function Form({
  place,
  step,
  save,
  pending,
}: {
  place: Place;
  step: Step;
  save: (act: StepAct) => void;
  pending: boolean;
}) {
  const { act } = step;
  switch (act.kind) {
    case "Narrow":
      return <ChangeValues place={place} step={step} act={act} onSave={save} pending={pending} />;
    case "Years":
      return <ChangeYears act={act} onSave={save} pending={pending} />;
    case "Ties":
      return (
        <ChangeText
          label="Tied to at least"
          initial={String(act.atLeast)}
          type="number"
          onSave={(text) => save({ ...act, atLeast: Math.max(1, Number(text) || 1) })}
          pending={pending}
        />
      );
    case "Inside":
      return (
        <ChangeText
          label="Words inside, separated by semicolons"
          initial={act.words.join(" ; ")}
          type="text"
          onSave={(text) => save({ ...act, words: text.split(";").map((t) => t.trim()) })}
          pending={pending}
        />
      );
    case "Search":
    case "Add":
      return (
        <ChangeText
          label="What it asks"
          initial={act.expression}
          type="text"
          onSave={(expression) => save({ ...act, expression })}
          pending={pending}
        />
      );
    default:
      return null;
  }
}

function ChangeText({
  label,
  initial,
  type,
  onSave,
  pending,
}: {
  label: string;
  initial: string;
  type: "text" | "number";
  onSave: (text: string) => void;
  pending: boolean;
}) {
  const [text, setText] = useState(initial);
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        onSave(text);
      }}
    >
      <Field label={label} type={type} value={text} onChange={(e) => setText(e.target.value)} className="mb-4" />
      <Save pending={pending} />
    </form>
  );
}

function ChangeYears({
  act,
  onSave,
  pending,
}: {
  act: ActOf<"Years">;
  onSave: (act: StepAct) => void;
  pending: boolean;
}) {
  const [from, setFrom] = useState(String(act.from ?? ""));
  const [to, setTo] = useState(String(act.to ?? ""));
  const year = (text: string) => (text.trim() === "" ? null : Number(text));
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        onSave({ ...act, from: year(from), to: year(to) });
      }}
    >
      <div className="mb-4 grid grid-cols-2 gap-3">
        <Field label="From" type="number" value={from} onChange={(e) => setFrom(e.target.value)} />
        <Field label="To" type="number" value={to} onChange={(e) => setTo(e.target.value)} />
      </div>
      <Save pending={pending} />
    </form>
  );
}

function ChangeValues({
  place,
  step,
  act,
  onSave,
  pending,
}: {
  place: Place;
  step: Step;
  act: ActOf<"Narrow">;
  onSave: (act: StepAct) => void;
  pending: boolean;
}) {
  const choice = useFacetChoice({ values: act.values ?? [], excluded: act.excluded ?? [], each: act.each ?? [] });
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        onSave({ ...act, values: choice.values, excluded: choice.excluded, each: choice.each });
      }}
    >
      {/* Counted in the set of this very step, its own narrowing lifted: what follows does not count yet. */}
      <FacetValues reviewId={place.reviewId} stepId={step.id} facet={act.facet} choice={choice} />
      <div className="mt-4">
        <Save pending={pending} />
      </div>
    </form>
  );
}

function Save({ pending }: { pending: boolean }) {
  return (
    <Button type="submit" kind="primary" disabled={pending}>
      Change it
    </Button>
  );
}
