import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { useDesk } from "../api/useSheet";
import { Slip } from "../ui/Dialog";
import { PLACES, type Place } from "./places";
import { setTheme, theme } from "./theme";

const KEYS: readonly (readonly [string, string])[] = [
  [`1 – ${PLACES.length + 1}`, `go to ${PLACES.map((place) => place.name).join(", ")}, Practice`],
  ["Enter", "next field; with Shift, the one before"],
  ["[  ]", "the weigh-in before, the one after"],
  ["u", "undo (outside a field)"],
  ["r", "redo (outside a field)"],
  ["t", "day or night"],
  ["?", "this list"],
];

const OFF = "noxel.keys-off";
const shortcutsOn = () => localStorage.getItem(OFF) === null;

export const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.matches("input, textarea, select") || target.isContentEditable);

/** Single keys for what is done often; none of them acts while somebody types in a field. */
export function useShortcuts(go: (place: Place) => void, help: () => void) {
  const { undo, redo, look, number, sheet } = useDesk();
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!shortcutsOn() || isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (/[0-9]/.test(event.key) && /\/(path|visit)$/.test(location.pathname)) return; // a figure is expected there
      const place = PLACES[Number(event.key) - 1];
      const count = sheet.window.count;
      if (place) go(place.id);
      else if (Number(event.key) === PLACES.length + 1) navigate("/practice");
      else if (event.key === "?") help();
      else if (event.key === "u") undo();
      else if (event.key === "r") redo();
      else if (event.key === "t") setTheme(theme() === "day" ? "night" : "day");
      else if (event.key === "[" && number && number > 1) look(number - 1);
      else if (event.key === "]" && number && number < count) look(number + 1);
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [go, help, undo, redo, look, number, sheet, navigate]);
}

export function Shortcuts({ open, onOpenChange }: { open: boolean; onOpenChange: (open: boolean) => void }) {
  const [on, setOn] = useState(shortcutsOn);
  const turn = (wanted: boolean) => {
    if (wanted) localStorage.removeItem(OFF);
    else localStorage.setItem(OFF, "1");
    setOn(wanted);
  };
  return (
    <Slip open={open} onOpenChange={onOpenChange} title="Keys">
      <dl className="grid grid-cols-[5rem_1fr] gap-y-2">
        {KEYS.map(([key, does]) => (
          <div key={key} className="contents">
            <dt className="font-cond text-[1.125rem] font-semibold">{key}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
      <label className="mt-3 flex min-h-11 cursor-pointer items-center gap-3 border-t border-rule pt-2">
        <input
          type="checkbox"
          className="h-5 w-5 accent-[var(--ink)]"
          checked={on}
          onChange={(event) => turn(event.currentTarget.checked)}
        />
        Single keys act (turn them off where speech or switches press keys)
      </label>
    </Slip>
  );
}
