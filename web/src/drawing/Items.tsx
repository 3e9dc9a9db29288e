import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import type { Layout, Sizes } from "./layout";

export type Placed = {
  /** Its path in the rig file, such as `loads[3]` or `tanks[0]`. */
  path: string;
  name: string;
  on: "vehicle" | "trailer";
  metres: number;
  tank: boolean;
};
export type OnPlace = (path: string, on: Placed["on"], metres: number, gesture: string) => void;

/** The items aboard, each where it lies; an item is dragged along, or moved with the arrow keys (with Shift, by a
 * metre), past the hitch as well. */
export function Items(props: {
  items: readonly Placed[];
  layout: Layout;
  sizes: Sizes;
  towing: boolean;
  onPlace: OnPlace | undefined;
}) {
  const { items, layout, onPlace, towing } = props;
  const moved = useRef<{ seen: Placed; metres: number; on: Placed["on"] } | null>(null);
  const origin = (on: Placed["on"]) => (on === "vehicle" ? 0 : layout.marks.hitch);
  /** Where a point of the drawing is; past the hitch, it is in the other one. */
  const place = (at: number) => {
    const on: Placed["on"] = towing && at > layout.marks.hitch + 0.15 ? "trailer" : "vehicle";
    return { on, metres: at - origin(on) };
  };
  const drag = (item: Placed) => (event: PointerEvent<SVGGElement>) => {
    if (!onPlace) return;
    const gesture = crypto.randomUUID();
    const group = event.currentTarget;
    const from = event.clientX;
    group.setPointerCapture(event.pointerId);
    const start = origin(item.on) + item.metres;
    const move = (now: globalThis.PointerEvent) => {
      const there = place(start + (now.clientX - from) / layout.scale);
      onPlace(item.path, there.on, there.metres, gesture);
    };
    const end = () => {
      group.removeEventListener("pointermove", move);
      group.removeEventListener("pointerup", end);
    };
    group.addEventListener("pointermove", move);
    group.addEventListener("pointerup", end);
  };
  const nudge = (item: Placed) => (event: KeyboardEvent) => {
    const stride = event.shiftKey ? 1 : 0.1;
    const step = event.key === "ArrowLeft" ? -stride : event.key === "ArrowRight" ? stride : 0;
    if (!step || !onPlace) return;
    event.preventDefault();
    const last = moved.current; // keys may come faster than answers
    const same = last?.seen.path === item.path && last.seen.metres === item.metres && last.seen.on === item.on;
    const from = same ? last : item;
    const there = place(origin(from.on) + from.metres + step);
    moved.current = { seen: item, ...there };
    onPlace(item.path, there.on, there.metres, `nudge ${item.path}`);
  };
  return (
    <g>
      {items.map((item, order) => {
        const x = layout.across(origin(item.on) + item.metres);
        const y = layout.up(item.on === "vehicle" ? 1.0 : 1.15) - (order % 3) * 12;
        return (
          <g
            key={item.path}
            role="slider"
            tabIndex={0}
            aria-label={item.name}
            aria-valuenow={Math.round(item.metres * 100)}
            aria-valuetext={`${item.metres.toFixed(2)} m ${item.on === "vehicle" ? "behind the front axle" : "behind the coupler"}`}
            data-item={item.path}
            className="cursor-ew-resize touch-none"
            onPointerDown={drag(item)}
            onKeyDown={nudge(item)}
          >
            <circle cx={x} cy={y} r={16} fill="transparent" />
            {item.tank ? (
              <path
                d={`M${x} ${y - 8}q7 8 0 14q-7 -6 0 -14z`}
                fill="var(--card)"
                stroke="var(--ink)"
                strokeWidth={1.6}
              />
            ) : (
              <path d={`M${x} ${y + 6}l-7 -12h14z`} fill="var(--ink)" stroke="var(--card)" strokeWidth={1.2} />
            )}
            <title>{item.name}</title>
          </g>
        );
      })}
    </g>
  );
}
