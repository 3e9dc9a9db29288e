import type { Change, JottedTicket, OwnLine, Photo, Sheet } from "./client";

/** What was typed, chosen or taken off a list. `outer` is the element that it is in, as it stood then. */
export type Typed = {
  kind: "typed";
  changes: Change[];
  gesture: string | null;
  seen: number;
  epoch: string;
  overrules: string[];
  outer?: unknown;
};
type Made =
  | Typed
  | { kind: "ticket"; ticket: JottedTicket }
  | { kind: "tick"; line: number; done: boolean; by: string }
  | { kind: "photo"; about: string; weighIn: string | null; visit: string | null; file: Blob };
/** Why something stands aside: in words, by its code, and which paths. */
export type Refusal = { why: string; code: string; paths: string[] };
/** What somebody made here: under a key of its own, which the server takes once; `client` is the page where it was made. */
export type Entry = { key: string; rig: string; client: string; order: number; at: number; says: string } & {
  tries: number;
  refused: Refusal | null;
} & Made;
/** What is asked for and answered with a sheet: not kept beyond this page, but sent in its turn, and once. */
type Asked = {
  kind: "asked";
  key: string;
  rig: string;
  make: (key: string) => Promise<Sheet>;
  /** The weigh-in that the answer looks at. */
  looking: number | undefined;
  done: () => void;
  failed: (error: Error) => void;
};
export type Brought =
  | { rig: string; sheet: Sheet }
  | { rig: string; photos: Photo[] }
  | { rig: string; lines: OwnLine[] };

/** How saving stands. `waiting` says why nothing could be sent; nothing typed is dropped. */
export type Saving = { state: "saved" } | { state: "saving" } | { state: "waiting"; why: string };
export type LineState = {
  saving: Saving;
  waiting: readonly Entry[];
  aside: readonly Entry[];
  /** Why this browser does not keep what waits; null while it does. */
  unkept: string | null;
};
/** An answer that is no success: `status` is missing when nothing answered. */
export type Failure = { message: string; status?: number; code?: string; paths?: string[] };
export type Means = {
  page: string;
  /** Which weigh-in of a rig is looked at. */
  looking: (rig: string) => number | undefined;
  send: (entry: Entry | Asked, looking: number | undefined) => Promise<Brought>;
  failure: (error: unknown) => Failure;
  keep: (entry: Entry) => Promise<void>;
  drop: (key: string) => Promise<void>;
  later: (act: () => void, ms: number) => () => void;
  newKey: () => string;
  now: () => number;
};

/** After so many errors of the server's own a change stands aside, so that the rest goes on. */
const TRIES = 3;
/** What passes: shut out and invited again, asked too often, the database is held by another program, the disk is full. */
const PASSING = [401, 429, 503, 507];
const RETRY_MS = [1500, 2500, 4000];

/**
 * The one line in which everything made on this page goes to the server: one request at a time, in the order it was
 * done, each until it is answered, each taken once. Typing in one field while another request is under way is folded
 * into one change. What cannot be saved stands aside until somebody decides, and the line goes on.
 */
export class Line {
  private line: (Entry | Asked)[] = [];
  private aside: Entry[] = [];
  /** Keys of what was sent and is not answered: it may have been taken, so nothing is folded into it. */
  private readonly attempted = new Set<string>();
  private busy = false;
  private why: string | null = null;
  private unkept: string | null = null;
  private failures = 0;
  private cancel = () => {};
  private readonly heard = new Set<() => void>();
  private readonly answers = new Set<(brought: Brought, looking: number | undefined) => void>();
  state: LineState = { saving: { state: "saved" }, waiting: [], aside: [], unkept: null };

  constructor(private readonly means: Means) {}

  subscribe = (heard: () => void) => {
    this.heard.add(heard);
    return () => void this.heard.delete(heard);
  };

  /** Hear of everything that an answer brought. */
  onAnswer(heard: (brought: Brought, looking: number | undefined) => void) {
    this.answers.add(heard);
    return () => void this.answers.delete(heard);
  }

  private show() {
    const waiting = this.line.filter((each): each is Entry => each.kind !== "asked");
    const saving: Saving = this.why
      ? { state: "waiting", why: this.why }
      : { state: this.line.length ? "saving" : "saved" };
    this.state = { saving, waiting, aside: this.aside, unkept: this.unkept };
    for (const each of this.heard) each();
  }

  private async keep(entry: Entry) {
    try {
      await this.means.keep(entry);
      if (this.unkept !== null) {
        this.unkept = null;
        this.show();
      }
    } catch (error) {
      this.unkept = (error as Error).message || String(error);
      this.show();
    }
  }

  private drop(key: string) {
    this.attempted.delete(key);
    this.means.drop(key).catch(() => {}); // sent again, it changes nothing
  }

  /** Take over what this page or one that was closed left behind, before what is made now. */
  adopt(left: readonly Entry[]) {
    const known = new Set([...this.line, ...this.aside].map((each) => each.key));
    const fresh = left.filter((each) => !known.has(each.key)).sort((one, other) => one.order - other.order);
    for (const each of fresh) this.attempted.add(each.key);
    this.aside = [...this.aside, ...fresh.filter((each) => each.refused)];
    this.line.splice(this.busy ? 1 : 0, 0, ...fresh.filter((each) => !each.refused));
    this.show();
    void this.go();
  }

  private entry<M extends Made>(rig: string, says: string, made: M, key = this.means.newKey()): Entry {
    const at = this.means.now();
    const last = this.line.findLast((each): each is Entry => each.kind !== "asked")?.order ?? 0;
    const order = Math.max(at, last + 1);
    return { ...made, key, rig, says, at, client: this.means.page, order, tries: 0, refused: null };
  }

  /** Something typed or chosen; `says` is the step in words. */
  type(rig: string, says: string, typed: Omit<Typed, "kind" | "overrules">) {
    const paths = pathsOf(typed);
    const aside = this.aside.find((each) => sameField(each, rig, typed));
    const last = this.line.at(-1);
    if (aside?.kind === "typed" && aside.gesture === typed.gesture && asked(aside)) {
      this.put({ ...aside, changes: typed.changes }); // one field, one question
      return;
    }
    if (aside) this.discard(aside.key); // typed anew, with the answer in view
    if (
      last?.kind === "typed" &&
      typed.gesture !== null &&
      last.gesture === typed.gesture &&
      last.rig === rig &&
      !this.attempted.has(last.key)
    ) {
      const changes = [...last.changes.filter((change) => !paths.includes(change.path)), ...typed.changes];
      this.put({ ...last, changes });
    } else {
      this.push(this.entry(rig, says, { ...typed, kind: "typed", overrules: [] }));
    }
    void this.go();
  }

  /** A ticket, a tick or a photograph; settled once this browser keeps it, or could not. */
  async add(rig: string, says: string, made: Exclude<Made, Typed>, key?: string) {
    await this.push(this.entry(rig, says, made, key));
    void this.go();
  }

  /** Ask for what answers with a new sheet, once all before it is answered; rejects with what was wrong. */
  ask(rig: string, make: (key: string) => Promise<Sheet>, looking: number | undefined) {
    return new Promise<void>((done, failed) => {
      this.line.push({ kind: "asked", key: this.means.newKey(), rig, make, looking, done, failed });
      this.show();
      void this.go();
    });
  }

  private push(entry: Entry) {
    this.line.push(entry);
    this.show();
    return this.keep(entry);
  }

  /** Put an entry in place of the one with its key. */
  private put(entry: Entry) {
    const inPlace = <E extends Entry | Asked>(each: E) => (each.key === entry.key ? (entry as E) : each);
    this.line = this.line.map(inPlace);
    this.aside = this.aside.map(inPlace);
    this.show();
    void this.keep(entry);
  }

  /** Try now what waits. */
  retry = () => {
    this.cancel();
    this.why = null;
    void this.go();
  };

  private async go(): Promise<void> {
    const next = this.line[0];
    if (this.busy || this.why !== null || !next) return;
    this.busy = true;
    this.attempted.add(next.key);
    this.show();
    const looking = next.kind === "asked" ? next.looking : this.means.looking(next.rig);
    try {
      const brought = await this.means.send(next, looking);
      this.taken(next);
      for (const each of this.answers) each(brought, next.kind === "ticket" ? undefined : looking);
      if (next.kind === "asked") next.done();
    } catch (error) {
      this.failed(this.line.find((each) => each.key === next.key) ?? next, this.means.failure(error), error);
    }
    this.show();
    return this.go();
  }

  private taken(done: Entry | Asked) {
    this.line = this.line.filter((each) => each.key !== done.key);
    this.busy = false;
    this.failures = 0;
    this.drop(done.key);
  }

  private failed(next: Entry | Asked, failure: Failure, error: unknown) {
    const { status, code = "", paths = [] } = failure;
    this.busy = false;
    if (status === undefined || PASSING.includes(status)) {
      this.wait(failure.message);
    } else if (next.kind === "asked") {
      this.taken(next);
      next.failed(error instanceof Error ? error : new Error(failure.message));
    } else if (status >= 500 && next.tries + 1 < TRIES) {
      this.put({ ...next, tries: next.tries + 1 });
      this.wait(failure.message);
    } else if (code === "conflict.gone" && next.kind === "typed" && next.changes.every(({ op }) => op === "remove")) {
      this.taken(next); // it is gone already
    } else {
      this.line = this.line.filter((each) => each.key !== next.key);
      this.stand({ ...next, tries: 0, refused: { why: failure.message, code, paths } });
    }
  }

  /** Let something stand aside, with all that was typed into the same field since. */
  private stand(entry: Entry) {
    const since = this.line.filter((each) => each.kind === "typed" && sameField(entry, each.rig, each)) as Typing[];
    const last = since.at(-1);
    if (last && !asked(entry)) {
      this.drop(entry.key); // what was typed since is sent in its place
      return;
    }
    const latest = last && entry.kind === "typed" ? { ...entry, changes: last.changes } : entry;
    for (const each of since) this.drop(each.key);
    this.line = this.line.filter((each) => !since.includes(each as Typing));
    this.aside = [...this.aside, latest];
    void this.keep(latest);
  }

  private wait(why: string) {
    this.why = why;
    const after = RETRY_MS[Math.min(this.failures, RETRY_MS.length - 1)] ?? 0;
    this.failures += 1;
    this.cancel = this.means.later(this.retry, after);
  }

  /** Send what stands aside as a change of its own, decided by a person: `changed` is what differs from before. */
  again(key: string, changed: Partial<Typed> = {}) {
    const found = this.aside.find((each) => each.key === key);
    if (!found) return;
    this.discard(key);
    const { tries: _, refused: __, at: ___, ...made } = found;
    void this.push(this.entry(found.rig, found.says, { ...made, ...changed } as Made));
    void this.go();
  }

  /** Forget what stands aside. */
  discard(key: string) {
    this.aside = this.aside.filter((each) => each.key !== key);
    this.drop(key);
    this.show();
  }
}

type Typing = Entry & Typed;
/** Whether a person is asked which of two figures holds. */
const asked = (aside: Entry) => aside.refused?.code.startsWith("conflict.") ?? false;
const pathsOf = (typed: Pick<Typed, "changes">) => typed.changes.map((change) => change.path);

/** Whether something stands aside over the very field that is typed into now. */
function sameField(aside: Entry, rig: string, typed: Pick<Typed, "changes">) {
  return (
    aside.kind === "typed" &&
    aside.rig === rig &&
    aside.changes.length === typed.changes.length &&
    [...aside.changes, ...typed.changes].every((change) => (change.op ?? "type") === "type") &&
    String(pathsOf(aside)) === String(pathsOf(typed))
  );
}
