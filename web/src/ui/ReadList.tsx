import { useState } from "react";
import type { Change, ReadFigure, TakenApart } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button, Choice } from "./controls";

const PARTS = [
  ["vehicle", "vehicle"],
  ["trailer", "trailer"],
  ["hitch", "hitch"],
] as const;

/** Figures of a label or a ticket, each with its words, to be looked at; those with a doubt are not ticked. */
export function ReadList(props: {
  answer: TakenApart;
  /** Asked again, as of another part. */
  onPart?: ((part: TakenApart["part"]) => void) | undefined;
  onTake: (figures: readonly ReadFigure[]) => void;
  /** The figure that is looked at, so that its frame stands out. */
  onLook?: (path: string | null) => void;
  nothing: string;
}) {
  const { answer, onPart, onTake, onLook, nothing } = props;
  const { named } = useDesk();
  /** Where each figure goes, by identity: from another window a list may have changed by the time it is kept. */
  const [places] = useState(() => new Map(answer.figures.map(({ path }) => [path, named(path)])));
  const [ticked, setTicked] = useState(
    () => new Set(answer.figures.filter((each) => !each.doubt).map((each) => each.path)),
  );
  const wanted = answer.figures
    .filter((each) => ticked.has(each.path))
    .map((each) => ({ ...each, path: places.get(each.path) ?? each.path }));
  const tick = (path: string) => {
    const next = new Set(ticked);
    if (!next.delete(path)) next.add(path);
    setTicked(next);
  };
  return (
    <div className="mt-3">
      {answer.part !== "pass" && onPart && (
        <p className="mb-2 flex flex-wrap items-center gap-2 text-[0.9375rem]">
          It is a label of the
          <Choice label="What the label is of" value={answer.part} options={PARTS} onChange={onPart} />
        </p>
      )}
      {answer.figures.length === 0 && <p className="text-[1rem] leading-snug">{nothing}</p>}
      <ul>
        {answer.figures.map((each, index) => (
          <li key={each.path} className={`border-b border-rule ${each.doubt ? "border-l-4 border-l-ochre pl-2" : ""}`}>
            <label
              className="flex min-h-12 w-full cursor-pointer items-center gap-3 py-1.5"
              data-read={each.path}
              onPointerEnter={() => onLook?.(each.path)}
              onPointerLeave={() => onLook?.(null)}
            >
              <input
                type="checkbox"
                className="h-6 w-6 shrink-0 accent-(--spruce)"
                checked={ticked.has(each.path)}
                onChange={() => tick(each.path)}
                onFocus={() => onLook?.(each.path)}
                onBlur={() => onLook?.(null)}
              />
              {each.frame && <span className="w-4 shrink-0 font-cond text-[0.9375rem] text-soft">{index + 1}</span>}
              <span className="min-w-0 flex-1 leading-tight">
                <span className="text-[1.0625rem] first-letter:uppercase">{each.label}</span>
                <span className="block truncate text-[0.875rem] text-soft">
                  “{each.words}”{each.unit_assumed && `; no unit: taken as ${answer.unit}`}
                </span>
                {each.doubt && (
                  <span className="block text-[0.9375rem] font-semibold first-letter:uppercase">{each.doubt}</span>
                )}
              </span>
              <span className="shrink-0 font-cond text-[1.375rem] font-semibold">
                {isMass(each) || / (lb|kg)$/.test(each.text) ? grouped(each.text) : each.text}
                {isMass(each) && <span className="text-[0.9375rem] font-normal"> {answer.unit}</span>}
              </span>
            </label>
          </li>
        ))}
      </ul>
      {answer.figures.length > 0 && (
        <Button strong className="mt-3 min-h-12 w-full" disabled={wanted.length === 0} onClick={() => onTake(wanted)}>
          {wanted.length === 0
            ? "Tick what is right"
            : wanted.length === 1
              ? "Take this figure"
              : `Take these ${wanted.length} figures`}
        </Button>
      )}
    </div>
  );
}

const isMass = ({ path, text }: ReadFigure) => /^\d+$/.test(text) && !/ticket_number$/.test(path);
const grouped = (text: string) => text.replace(/^\d{4,6}(?= |$)/, (digits) => Number(digits).toLocaleString("en-US"));

/** Keeps figures that were looked at: an ordinary step that can be undone. */
export function useTake(into?: string) {
  const { change } = useDesk();
  return (answer: TakenApart, figures: readonly ReadFigure[], says: string) => {
    const typed = figures.map(({ path, text }) => ({
      path,
      op: "type" as const,
      text,
      ...(into ? {} : { source: "plate" as const }),
    }));
    change([...((answer.before ?? []) as unknown as Change[]), ...typed], says);
  };
}
