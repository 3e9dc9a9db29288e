import { type FormEvent, useState } from "react";
import type { Advisory } from "../api/client";
import { useDesk } from "../api/useSheet";
import { FixButton } from "./FixButton";

/** One advisory. A warning of the scale yard can be answered “it is right”: it then stays on the record as a note. */
export function AdvisoryNote({ advisory }: { advisory: Advisory }) {
  const { rig, weighIn, change } = useDesk();
  const [asking, setAsking] = useState(false);
  const [note, setNote] = useState("");
  const here = weighIn ? `weigh_ins[${weighIn - 1}]` : null;
  const inside =
    here && advisory.doubt
      ? ""
      : here && advisory.path?.startsWith(here)
        ? advisory.path.slice(here.length).replace(/^\./, "")
        : null;
  const accepted = weighIn ? (rig.weigh_ins?.[weighIn - 1]?.accepted ?? []) : [];
  const link = "font-cond text-[0.875rem] underline underline-offset-2";
  const accept = (event: FormEvent) => {
    event.preventDefault();
    const value = { code: advisory.code, path: inside ?? "", ...(note.trim() ? { note: note.trim() } : {}) };
    change([{ path: `${here}.accepted[${accepted.length}]`, op: "insert", value }], "it is right");
    setAsking(false);
  };
  const takeBack = () => {
    const index = accepted.findIndex((each) => each.code === advisory.code && (each.path ?? "") === inside);
    if (index >= 0) change([{ path: `${here}.accepted[${index}]`, op: "remove" }], "not right after all");
  };
  return (
    <div
      data-advisory={advisory.code}
      className={`max-w-[80ch] text-[0.9375rem] leading-snug ${advisory.level === "warning" ? "border-l-4 border-ochre pl-2" : "border-l-4 border-transparent pl-2"}`}
    >
      {advisory.message}{" "}
      {advisory.accepted && (
        <span className="text-soft">
          Looked at and found right{advisory.accepted_note ? `: “${advisory.accepted_note}”` : ""}.{" "}
          <button type="button" className={link} onClick={takeBack}>
            take that back
          </button>
        </span>
      )}
      {advisory.fix && !advisory.accepted && <FixButton fix={advisory.fix} />}
      {!advisory.accepted && advisory.level === "warning" && inside !== null && !asking && (
        <button type="button" className={`${link} max-md:block`} onClick={() => setAsking(true)}>
          it is right
        </button>
      )}
      {asking && (
        <form onSubmit={accept} className="mt-1 flex gap-2">
          <input
            value={note}
            aria-label="Why it is right"
            placeholder="why, for the record"
            maxLength={400}
            onChange={(event) => setNote(event.currentTarget.value)}
            className="h-9 min-w-0 flex-1 border-b-2 border-edge bg-card px-2 outline-none placeholder:text-soft focus:border-ink"
          />
          <button type="submit" className={link}>
            keep it so
          </button>
        </form>
      )}
    </div>
  );
}
