import type { KeyboardEvent, PointerEvent } from "react";
import type { Layout, Sizes } from "./layout";

export type Placed = { index: number; name: string; on: "vehicle" | "trailer"; metres: number };

/** The things aboard, each where it lies; a thing is dragged along, or moved with the arrow keys. */
export function Items(props: {
  items: readonly Placed[];
  layout: Layout;
  sizes: Sizes;
  onPlace: ((index: number, metres: number, gesture: string) => void) | undefined;
}) {
  const { items, layout, onPlace } = props;
  const origin = (on: Placed["on"]) => (on === "vehicle" ? 0 : layout.marks.hitch);
  const drag = (item: Placed) => (event: PointerEvent<SVGGElement>) => {
    if (!onPlace) return;
    const gesture = crypto.randomUUID();
    const group = event.currentTarget;
    const from = event.clientX;
    group.setPointerCapture(event.pointerId);
    const move = (now: globalThis.PointerEvent) =>
      onPlace(item.index, item.metres + (now.clientX - from) / layout.scale, gesture);
    const end = () => {
      group.removeEventListener("pointermove", move);
      group.removeEventListener("pointerup", end);
    };
    group.addEventListener("pointermove", move);
    group.addEventListener("pointerup", end);
  };
  const nudge = (item: Placed) => (event: KeyboardEvent) => {
    const step = event.key === "ArrowLeft" ? -0.1 : event.key === "ArrowRight" ? 0.1 : 0;
    if (!step || !onPlace) return;
    event.preventDefault();
    onPlace(item.index, item.metres + step, `nudge ${item.index}`);
  };
  return (
    <g>
      {items.map((item, order) => {
        const x = layout.across(origin(item.on) + item.metres);
        const y = layout.up(item.on === "vehicle" ? 1.0 : 1.15) - (order % 3) * 12;
        return (
          <g
            key={item.index}
            role="slider"
            tabIndex={0}
            aria-label={item.name}
            aria-valuenow={Math.round(item.metres * 100)}
            aria-valuetext={`${item.metres.toFixed(2)} m ${item.on === "vehicle" ? "behind the front axle" : "behind the coupler"}`}
            data-item={item.index}
            className="cursor-ew-resize touch-none"
            onPointerDown={drag(item)}
            onKeyDown={nudge(item)}
          >
            <path d={`M${x} ${y + 6}l-7 -12h14z`} fill="var(--ink)" stroke="var(--card)" strokeWidth={1.2} />
            <title>{item.name}</title>
          </g>
        );
      })}
    </g>
  );
}
