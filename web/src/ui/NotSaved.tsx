import { type Entry, queue } from "../api/queue";
import { useAside, useDesk } from "../api/useSheet";
import { Button } from "./controls";

/** What somebody typed or chose in a change that could not be saved, in one line. */
function typedIn(aside: Entry) {
  if (aside.kind !== "typed") return "";
  const words = aside.changes.flatMap(({ text, op, texts, value }) => {
    if (op === "remove") return ["removed"];
    return [text ?? value, ...Object.values(texts ?? {})].filter((word) => typeof word !== "boolean" && word);
  });
  return words.filter((word) => typeof word !== "object").join(", ");
}

/** What it was: of an item or a tank also which one. */
function whatOf(aside: Entry) {
  const element = aside.kind === "typed" ? (aside.outer as { name?: string } | undefined) : undefined;
  return element?.name
    ? `${element.name}, ${aside.says.replace(/^[A-Z](?=[a-z])/, (letter) => letter.toLowerCase())}`
    : aside.says;
}

const short = (text: string) => (text.length > 60 ? `${text.slice(0, 57)}…` : text);

/** Every change that stands aside, above the place; what was typed stays here until somebody decides. */
export function NotSaved() {
  const aside = useAside();
  if (!aside.length) return null;
  return (
    <section aria-label="Not saved" className="no-print border-b-2 border-ink bg-card px-4 py-2 lg:px-6">
      {aside.map((each) => (
        <OneAside key={each.key} aside={each} />
      ))}
    </section>
  );
}

/** What may be done about it: send it once more, in which words; and what giving it up is called. */
function choices(aside: Entry): [string | null, string] {
  switch (aside.refused?.code) {
    case "conflict.field":
    case "conflict.epoch":
      return ["Use mine", "Keep the other"];
    case "conflict.gone":
      return [aside.kind === "typed" && aside.outer ? "Add again" : null, "Discard"];
    case "earlier":
    case "not_found":
      return [null, "Discard"];
    default:
      return ["Try again", "Discard"];
  }
}

function OneAside({ aside }: { aside: Entry }) {
  const { rig, again, change } = useDesk();
  const typed = typedIn(aside);
  const [once_more, give_up] = choices(aside);
  const discard = () => queue.discard(aside.key);
  const note = () => {
    const line = `${whatOf(aside)}: ${typed.slice(0, 1500)}`;
    change([{ path: "note", op: "set", value: [rig.note, line].filter(Boolean).join("\n").slice(0, 3900) }], "note");
    discard();
  };
  return (
    <div role="alert" data-aside={aside.kind === "typed" ? aside.changes[0]?.path : aside.kind} className="py-1">
      <p className="text-[0.9375rem] leading-snug">
        <span className="inline-block font-semibold first-letter:uppercase">{whatOf(aside)} could not be saved</span>
        {typed && <span>: “{short(typed)}”</span>}. {aside.refused?.why}
      </p>
      <div className="mt-1 flex flex-wrap gap-2">
        {once_more && <Button onClick={() => again(aside)}>{once_more}</Button>}
        {typed && <Button onClick={note}>Keep as a note</Button>}
        <Button onClick={discard}>{give_up}</Button>
      </div>
    </div>
  );
}

/** The same at the field itself: that what was typed here was not saved. */
export function NotSavedHere({ path }: { path: string }) {
  const { named } = useDesk();
  const own = named(path);
  const changes = useAside().flatMap((each) => (each.kind === "typed" ? each.changes : []));
  const change = changes.find((each) => each.path === own);
  if (!change) return null;
  return (
    <p className="mb-1 border-l-4 border-ink pl-2 text-[0.8125rem] leading-snug font-semibold">
      {change.text ? `“${short(change.text)}” could not be saved` : "A change here could not be saved"}: see the top of
      the page.
    </p>
  );
}
