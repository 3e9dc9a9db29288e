import type { Kind } from "../api/client";

const TRUCK = "M2 24v-7l7-2 4-6h13v9h14v6z";
const LONG_TRUCK = "M2 24v-7l7-2 4-6h13v9h18v6z";
const PICTURES: Record<Kind | "alone", { body: readonly string[]; wheels: readonly number[] }> = {
  conventional: { body: [TRUCK, "M40 22h8", "M48 24V10q0-3 3-3h34q3 0 3 3v14z"], wheels: [10, 32, 64, 72] },
  fifth_wheel: { body: [LONG_TRUCK, "M32 12V5q0-2 2-2h52q3 0 3 3v18H48V12z"], wheels: [10, 36, 66, 74] },
  gooseneck: { body: [LONG_TRUCK, "M34 16V9h12v10h42v5H46"], wheels: [10, 36, 66, 74] },
  motorhome: { body: ["M4 24V14l6-9h62q3 0 3 3v16z", "M12 14l4-6h8v6z"], wheels: [16, 60] },
  slide_in: { body: [TRUCK, "M14 9V4h34v14H27V9z"], wheels: [10, 32] },
  alone: { body: [TRUCK], wheels: [10, 32] },
};

/** A rig of a kind in outline, for choosing among them. */
export function KindPicture({ kind }: { kind: Kind | "alone" }) {
  const { body, wheels } = PICTURES[kind];
  return (
    <svg viewBox="0 0 92 32" className="h-10 w-full" aria-hidden="true" fill="none" stroke="currentColor">
      {body.map((d) => (
        <path key={d} d={d} strokeWidth={1.8} strokeLinejoin="round" />
      ))}
      {wheels.map((x) => (
        <circle key={x} cx={x} cy={25} r={3.6} strokeWidth={1.8} fill="var(--paper)" />
      ))}
    </svg>
  );
}
