import { api, type Change, PAGE as page, RequestFailed, type Sheet } from "./client";

/** How saving stands. `waiting` holds what could not be sent yet; nothing typed is dropped. */
export type Saving =
  | { state: "saved" }
  | { state: "saving" }
  | { state: "waiting"; why: string }
  | { state: "refused"; why: string };

type Typed = {
  changes: Change[];
  what: string;
  gesture: string | null;
  window: number[];
  base: number | null;
  tries?: number;
};
/** What could not be saved and stands aside until somebody decides; `why` is what the server said. */
export type Aside = Typed & { id: string; why: string /** Another page set the same figure. */; both: boolean };
type Asked = { make: () => Promise<Sheet>; at: number | undefined; done: () => void; failed: (error: Error) => void };
type Listener = {
  sheet: (sheet: Sheet, at: number | undefined) => void;
  saving: (saving: Saving) => void;
  aside: (aside: Aside[]) => void;
  /** What was typed and is not answered yet, by path. */
  unsent: (texts: ReadonlyMap<string, string>) => void;
};

/** After so many errors of the server's own a change stands aside, so that the rest goes on. */
const TRIES = 3;
/** What passes: the disk is full, the database is held by another program, this device was shut out and is invited again. */
const PASSING = [401, 503, 507];
const RETRY_MS = 1500;
const UNSENT = "noxel.unsent";
/** This page holds a lock of its own name as long as it lives. */
const alive = new Promise<void>((held) => {
  void navigator.locks.request(page, () => {
    held();
    return new Promise(() => {});
  });
});
const queues = new Map<string, ChangeQueue>();

/** The one queue of a rig: it goes on sending what was typed when the rig is no longer looked at. */
export function queueOf(rig: string): ChangeQueue {
  const known = queues.get(rig) ?? new ChangeQueue(rig);
  queues.set(rig, known);
  return known;
}

/**
 * Sends everything that changes a rig one request at a time, in the order it was done, so that no answer comes in over
 * a newer one. Typing in one field while a request is under way is folded into one step, so the screen is never more
 * than one answer behind. What was typed and is unsent survives a reload, and is taken over from a page that was closed.
 */
class ChangeQueue {
  private line: (Typed | Asked)[] = [];
  private busy = false;
  private asides: Aside[];
  private retry: ReturnType<typeof setTimeout> | undefined;
  private listener: Listener | undefined;
  /** The weigh-in looked at: what is typed is answered for it. */
  weighIn: number | undefined;

  constructor(private readonly rig: string) {
    this.asides = JSON.parse(localStorage.getItem(this.asideKey) ?? "[]");
    void this.takeOver();
  }

  private get asideKey() {
    return `noxel.aside.${this.rig}`;
  }

  private get key() {
    return `${UNSENT}.${this.rig}.${page}`;
  }

  /** What pages left unsent that are no longer open; each by one page only. */
  private async takeOver() {
    await alive;
    await navigator.locks.request(UNSENT, async () => {
      const open = new Set((await navigator.locks.query()).held?.map((each) => each.name));
      const left = Object.keys(localStorage).filter(
        (key) => key.startsWith(`${UNSENT}.${this.rig}.`) && !open.has(key.split(".").at(-1)),
      );
      const unsent = left.flatMap((key) => JSON.parse(localStorage.getItem(key) ?? "[]") as Typed[]);
      this.line.splice(this.busy ? 1 : 0, 0, ...unsent);
      this.keep();
      for (const key of left) localStorage.removeItem(key);
    });
    void this.send();
  }

  private get typed() {
    return this.line.filter((each): each is Typed => "changes" in each);
  }

  private keep() {
    const unsent = this.typed;
    if (unsent.length) localStorage.setItem(this.key, JSON.stringify(unsent));
    else localStorage.removeItem(this.key);
    this.listener?.unsent(this.texts);
  }

  /** What was typed into fields or ticked and is not answered yet, by path: shown until it is. */
  private get texts() {
    const made = this.typed.flatMap((each) => each.changes);
    const shown = made.filter(({ op, path }) => op === "type" || (op === "set" && path.startsWith("ready.")));
    return new Map(shown.map(({ op, path, text, value }) => [path, String((op === "type" ? text : value) ?? "")]));
  }

  /** Hear of every answer, with the weigh-in it is about, and of how saving stands, until the answer is called. */
  listen(listener: Listener) {
    this.listener = listener;
    listener.aside(this.asides);
    listener.unsent(this.texts);
    return () => {
      if (this.listener === listener) this.listener = undefined;
    };
  }

  /** Paths are within the weigh-ins of `window`, by keys, and of the state `base`: those of the sheet that was typed into. */
  push(changes: Change[], what: string, gesture: string | null, window: number[], base: number) {
    const last = this.busy && this.line.length === 1 ? undefined : this.line.at(-1);
    const foldable = last && "changes" in last && gesture !== null && last.gesture === gesture;
    if (foldable && last.base === base && String(last.window) === String(window)) {
      const paths = new Set(changes.map((change) => change.path));
      last.changes = [...last.changes.filter((change) => !paths.has(change.path)), ...changes];
    } else {
      this.line.push({ changes, what, gesture, window, base });
    }
    this.keep();
    void this.send();
  }

  /** Ask for what answers with a new sheet, of the weigh-in `at`, once all before it is answered; rejects with what was wrong. */
  ask(make: () => Promise<Sheet>, at: number | undefined) {
    return new Promise<void>((done, failed) => {
      this.line.push({ make, at, done, failed });
      void this.send();
    });
  }

  /** Whether anything typed is still to be sent. */
  get pending() {
    return this.typed.length > 0;
  }

  private async send() {
    const next = this.line[0];
    if (this.busy || !next) return;
    this.busy = true;
    clearTimeout(this.retry);
    this.listener?.saving({ state: "saving" });
    const at = "make" in next ? next.at : this.weighIn;
    try {
      const sheet = await ("make" in next ? next.make() : api.change(this.rig, next, at));
      this.take();
      this.listener?.sheet(sheet, at);
      this.listener?.saving(this.line.length ? { state: "saving" } : { state: "saved" });
      if ("make" in next) next.done();
    } catch (error) {
      const failed = error instanceof RequestFailed ? error : new RequestFailed(String(error));
      if ("make" in next) {
        this.take();
        this.listener?.saving(this.line.length ? { state: "saving" } : { state: "saved" });
        next.failed(failed);
      } else if (this.hopeless(next, failed)) {
        this.take();
        this.keepAsides([
          ...this.asides,
          { ...next, id: crypto.randomUUID(), why: failed.message, both: failed.problem?.code === "conflict.field" },
        ]);
        this.listener?.saving(this.line.length ? { state: "saving" } : { state: "saved" });
      } else {
        this.wait(failed);
        return;
      }
    }
    void this.send();
  }

  /** Whether trying again cannot help: the server refused it, or failed over it again and again. */
  private hopeless(typed: Typed, failed: RequestFailed) {
    const status = failed.problem?.status;
    if (status === undefined || PASSING.includes(status)) return false;
    typed.tries = (typed.tries ?? 0) + 1;
    this.keep();
    return status < 500 || typed.tries >= TRIES;
  }

  private keepAsides(asides: Aside[]) {
    this.asides = asides;
    if (asides.length) localStorage.setItem(this.asideKey, JSON.stringify(asides));
    else localStorage.removeItem(this.asideKey);
    this.listener?.aside(asides);
  }

  /** Send what stands aside once more, after everything else. */
  again(id: string) {
    const found = this.asides.find((each) => each.id === id);
    if (!found) return;
    this.discard(id);
    const { changes, what, gesture, window } = found;
    this.line.push({ changes, what, gesture, window, base: null }); // whatever is there now: the person has decided
    this.keep();
    void this.send();
  }

  /** Forget what stands aside. */
  discard(id: string) {
    this.keepAsides(this.asides.filter((each) => each.id !== id));
  }

  private take() {
    this.line.shift();
    this.busy = false;
    this.keep();
  }

  /** What was typed is sent again later; what was only requested is reported as failed. */
  private wait(failed: Error) {
    const asked = this.line.filter((each) => "make" in each);
    this.line = this.typed;
    this.busy = false;
    this.listener?.saving({ state: "waiting", why: failed.message });
    for (const each of asked) each.failed(failed);
    this.retry = setTimeout(() => void this.send(), RETRY_MS);
  }
}
