import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useRef, useState } from "react";
import { api, type OwnLine } from "../api/client";
import { queue, useQueue } from "../api/queue";
import { useDesk } from "../api/useSheet";
import { useVisitor } from "../api/visitor";
import { when } from "../format";
import { Button } from "../ui/controls";
import { Refused, useAttempt } from "../ui/useAttempt";

/** The owner's own lines before it rolls: for always, or for this trip; done by whom and when. */
export function OwnLines() {
  const { sheet } = useDesk();
  const { viewing } = useVisitor();
  const queries = useQueryClient();
  const key = ["lines", sheet.id];
  const lines = useQuery({ queryKey: key, queryFn: () => api.lines(sheet.id) });
  const [text, setText] = useState("");
  const [trip, setTrip] = useState(false);
  const [by, setBy] = useState(() => localStorage.getItem("noxel.by") ?? "");
  const { problem, attempt } = useAttempt();
  /** The key of the line that is being added: added once, also where its answer is lost. */
  const adding = useRef(crypto.randomUUID());
  const act = (doing: Promise<OwnLine[]>, then?: () => void) =>
    attempt(doing, (now) => {
      queries.setQueryData(key, now);
      adding.current = crypto.randomUUID();
      then?.();
    });
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (!text.trim()) return;
    void act(api.addLine(sheet.id, text, trip, adding.current), () => setText("")); // refused, it stays to be tried again
  };
  const ticked = useQueue().waiting.filter((each) => each.kind === "tick" && each.rig === sheet.id);
  const all = (lines.data ?? []).map((each) => {
    const made = ticked.findLast((tick) => tick.kind === "tick" && tick.line === each.id);
    if (made?.kind !== "tick") return each;
    return {
      ...each,
      done_at: made.done ? new Date(made.at).toISOString() : null,
      done_by: made.done ? made.by : null,
    };
  });
  const tick = (line: OwnLine, done: boolean) =>
    queue.add(sheet.id, done ? `“${line.text}” ticked` : `“${line.text}” not done`, {
      kind: "tick",
      line: line.id,
      done,
      by,
    });
  return (
    <div className="border-t border-ink px-3 py-2" data-part="own-lines">
      <h4 className="font-cond text-[1.0625rem] font-semibold">Your own lines</h4>
      <ul>
        {all.map((each) => (
          <li key={each.id} className="flex items-center gap-3 border-b border-rule">
            <label className="flex min-h-11 flex-1 cursor-pointer items-center gap-3 py-1 text-[0.9375rem] leading-snug">
              <input
                type="checkbox"
                disabled={viewing}
                className="h-5 w-5 shrink-0 accent-[var(--ink)]"
                checked={each.done_at !== null}
                onChange={(event) => void tick(each, event.currentTarget.checked)}
              />
              <span>
                {each.text}
                <span className="block text-[0.8125rem] text-soft">
                  {each.trip && "this trip"}
                  {each.trip && each.done_at && " · "}
                  {each.done_at && `done ${when(each.done_at)}${each.done_by ? ` by ${each.done_by}` : ""}`}
                </span>
              </span>
            </label>
            {!viewing && (
              <button
                type="button"
                aria-label={`Take away: ${each.text}`}
                className="min-h-11 px-2 text-[0.875rem] underline"
                onClick={() => void act(api.dropLine(sheet.id, each.id))}
              >
                take away
              </button>
            )}
          </li>
        ))}
      </ul>
      {!viewing && (
        <form className="mt-1 flex flex-wrap items-center gap-3" onSubmit={(event) => void add(event)}>
          <input
            aria-label="A line of your own"
            placeholder="Another line, such as “telescope lashed”"
            className="h-11 min-w-0 flex-1 basis-60 border border-edge bg-card px-2 text-[1rem]"
            value={text}
            maxLength={300}
            onChange={(event) => setText(event.currentTarget.value)}
          />
          <label className="flex min-h-11 items-center gap-2 text-[0.9375rem]">
            <input
              type="checkbox"
              className="h-5 w-5 accent-[var(--ink)]"
              checked={trip}
              onChange={(event) => setTrip(event.currentTarget.checked)}
            />
            this trip only
          </label>
          <Button type="submit">Add</Button>
          <label className="flex items-center gap-2 text-[0.9375rem]">
            Ticked by
            <input
              className="h-11 w-28 border border-edge bg-card px-2 text-[1rem]"
              value={by}
              maxLength={40}
              placeholder="name"
              onChange={(event) => {
                setBy(event.currentTarget.value);
                localStorage.setItem("noxel.by", event.currentTarget.value);
              }}
            />
          </label>
          {all.length > 0 && <Button onClick={() => void act(api.tripOver(sheet.id))}>The trip is over</Button>}
        </form>
      )}
      <Refused problem={problem ?? lines.error?.message} />
    </div>
  );
}
