import type { Change, RigFile } from "./client";

const STEP = /\[(\d+)\]|\[([a-z][0-9a-z]*)\]|((?<=cushions\.).+|[^.[\]]+)/g; // a check's name has a point inside
type Step = { index?: number; id?: string; name?: string };
type Element = { id?: string };

/** The steps of a path: names, positions in lists, identities of elements. */
function steps(path: string): Step[] {
  return [...path.matchAll(STEP)].map(([, index, id, name]) =>
    index !== undefined ? { index: Number(index) } : id !== undefined ? { id } : { name: name ?? "" },
  );
}

function under(here: unknown, { index, id, name }: Step): unknown {
  if (here === null || typeof here !== "object") return undefined;
  if (id !== undefined) return Array.isArray(here) ? here.find((each: Element) => each.id === id) : undefined;
  return (here as Record<string, unknown>)[name ?? String(index)];
}

/** What stands at a path of the rig file, such as `weigh_ins[0].scale.resolution` or `loads[k3f9].mass`. */
export const at = (rig: unknown, path: string): unknown => steps(path).reduce(under, rig);

/** A path with the identity of each element in place of its position in this very sheet; what is typed is sent so. */
export function named(rig: RigFile, path: string): string {
  let here: unknown = rig;
  let own = "";
  for (const step of steps(path)) {
    here = under(here, step);
    const id = step.id ?? (step.index === undefined ? undefined : (here as Element | undefined)?.id);
    if (step.name !== undefined) own += own ? `.${step.name}` : step.name;
    else own += `[${id ?? step.index}]`;
  }
  return own;
}

/** The list of an element that is put in: `loads[7]` becomes `loads`, which grows at its end. */
const listOf = (path: string) => path.replace(/\[\d+\]$/, "");

/** An identity that nothing has. */
export function newIdentity(): string {
  const digits = [...crypto.getRandomValues(new Uint8Array(9))].map((byte) => (byte % 36).toString(36));
  return `k${digits.join("")}`;
}

/** A change as it is sent: its element named by identity, a new element with one of its own. */
export function sealed(rig: RigFile, change: Change): Change {
  if (change.op !== "insert") return { ...change, path: named(rig, change.path) };
  const path = named(rig, listOf(change.path));
  const value = change.value as object | null;
  const listed = value !== null && typeof value === "object" && !("id" in value);
  return { ...change, path, value: listed ? { id: newIdentity(), ...value } : value };
}

/** The outermost element that a path is in, as it stands: kept with what is typed into it, should it be taken away. */
export function elementOf(rig: RigFile, path: string): unknown {
  const outer = /^[^[]*\[[a-z][0-9a-z]*\]/.exec(path)?.[0];
  return outer ? at(rig, outer) : undefined;
}

/**
 * The changes that put back the element at `gone`, as it was within `outer`, and then do what was typed into it.
 * `null` where nothing is known of it.
 */
export function addedAgain(changes: readonly Change[], gone: string, outer: unknown): Change[] | null {
  const [, list = "", inner = ""] = /^([^[]*)\[[a-z][0-9a-z]*\]\.?(.*)$/.exec(gone) ?? [];
  const element = (inner ? at(outer, inner) : outer) as Element | undefined;
  if (!list || element === undefined) return null;
  const id = newIdentity();
  const whole = gone.replace(/\[[^\]]*\]$/, "");
  const moved = (path: string) => (path.startsWith(gone) ? `${whole}[${id}]${path.slice(gone.length)}` : path);
  const rest = changes.filter((change) => change.op !== "remove" || change.path !== gone);
  return [
    { path: whole, op: "insert", value: { ...element, id } },
    ...rest.map((change) => ({ ...change, path: moved(change.path) })),
  ];
}
