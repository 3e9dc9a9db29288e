import { api, type Change, RequestFailed, type Sheet } from "./client";

/** How saving stands. `waiting` holds what could not be sent yet; nothing typed is dropped. */
export type Saving =
  | { state: "saved" }
  | { state: "saving" }
  | { state: "waiting"; why: string }
  | { state: "refused"; why: string };

type Step = { changes: Change[]; what: string; gesture: string | null; window: number[] };

const RETRY_MS = 1500;

/**
 * Sends changes one request at a time, in order. Typing in one field while a request is under way is folded into one
 * step, so the screen is never more than one answer behind. What is unsent survives a reload.
 */
export class ChangeQueue {
  private steps: Step[];
  private busy = false;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private closed = false;
  weighIn: number | undefined;

  constructor(
    private readonly rig: string,
    private readonly onSheet: (sheet: Sheet) => void,
    private readonly onSaving: (saving: Saving) => void,
  ) {
    this.steps = JSON.parse(localStorage.getItem(this.key) ?? "[]") as Step[];
    if (this.steps.length) void this.send();
  }

  private get key() {
    return `noxel.unsent.${this.rig}`;
  }

  private keep() {
    if (this.steps.length) localStorage.setItem(this.key, JSON.stringify(this.steps));
    else localStorage.removeItem(this.key);
  }

  /** Paths are within the weigh-ins of `window`, by keys: those of the sheet that was typed into. */
  push(changes: Change[], what: string, gesture: string | null, window: number[]) {
    const last = this.steps.at(-1);
    const foldable = last && !(this.busy && this.steps.length === 1) && gesture !== null && last.gesture === gesture;
    if (foldable && String(last.window) === String(window)) {
      const paths = new Set(changes.map((change) => change.path));
      last.changes = [...last.changes.filter((change) => !paths.has(change.path)), ...changes];
    } else {
      this.steps.push({ changes, what, gesture, window });
    }
    this.keep();
    void this.send();
  }

  /** Whether anything is still to be sent. */
  get pending() {
    return this.steps.length > 0;
  }

  close() {
    this.closed = true;
    clearTimeout(this.retry);
  }

  private async send() {
    if (this.busy || this.closed) return;
    const step = this.steps[0];
    if (!step) return;
    this.busy = true;
    this.onSaving({ state: "saving" });
    try {
      const sheet = await api.change(this.rig, step, this.weighIn);
      this.steps.shift();
      this.busy = false;
      this.keep();
      this.onSheet(sheet);
      this.onSaving(this.steps.length ? { state: "saving" } : { state: "saved" });
      void this.send();
    } catch (error) {
      this.busy = false;
      const failed = error instanceof RequestFailed ? error : new RequestFailed(String(error));
      if (failed.problem && failed.problem.status < 500) {
        this.steps.shift();
        this.keep();
        this.onSaving({ state: "refused", why: failed.message });
        void this.send();
        return;
      }
      this.onSaving({ state: "waiting", why: failed.message });
      clearTimeout(this.retry);
      this.retry = setTimeout(() => void this.send(), RETRY_MS);
    }
  }
}
