import type { Aside } from "../api/queue";
import { useAside, useDesk } from "../api/useSheet";
import { Button } from "./controls";

/** What somebody typed in a change that could not be saved, in one line. */
const typedIn = (aside: Aside) =>
  aside.changes
    .map(
      (change) =>
        change.text ?? (change.op === "remove" ? "removed" : JSON.stringify(change.value ?? change.texts ?? "")),
    )
    .join(", ");

const short = (text: string) => (text.length > 60 ? `${text.slice(0, 57)}…` : text);

/** Every change that stands aside, above the place; what was typed stays here until somebody decides. */
export function NotSaved() {
  const aside = useAside();
  if (!aside.length) return null;
  return (
    <section aria-label="Not saved" className="no-print border-b-2 border-ink bg-card px-4 py-2 lg:px-6">
      {aside.map((each) => (
        <OneAside key={each.id} aside={each} />
      ))}
    </section>
  );
}

function OneAside({ aside }: { aside: Aside }) {
  const { rig, again, discard, change } = useDesk();
  const typed = typedIn(aside);
  const note = () => {
    const line = `${aside.what}: ${typed.slice(0, 1500)}`;
    change([{ path: "note", op: "set", value: [rig.note, line].filter(Boolean).join("\n").slice(0, 3900) }], "note");
    discard(aside.id);
  };
  return (
    <div role="alert" data-aside={aside.changes[0]?.path} className="py-1">
      <p className="text-[0.9375rem] leading-snug">
        <span className="font-semibold">{aside.what} could not be saved</span>
        {typed && <span>: “{short(typed)}”</span>}. {aside.why}
      </p>
      <div className="mt-1 flex flex-wrap gap-2">
        <Button onClick={() => again(aside.id)}>{aside.both ? "Use mine" : "Try again"}</Button>
        <Button onClick={note}>Keep as a note</Button>
        <Button onClick={() => discard(aside.id)}>{aside.both ? "Keep the other" : "Discard"}</Button>
      </div>
    </div>
  );
}

/** The same at the field itself: that what was typed here was not saved. */
export function NotSavedHere({ path }: { path: string }) {
  const aside = useAside().find((each) => each.changes.some((change) => change.path === path));
  const text = aside?.changes.find((change) => change.path === path)?.text;
  if (!aside) return null;
  return (
    <p className="mb-1 border-l-4 border-ink pl-2 text-[0.8125rem] leading-snug font-semibold">
      {text ? `“${short(text)}” could not be saved` : "A change here could not be saved"}: see the top of the page.
    </p>
  );
}
