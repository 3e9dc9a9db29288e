import { useNavigate } from "react-router";
import type { ScaleKind } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Choice } from "../ui/controls";
import { Refused, useAttempt } from "../ui/useAttempt";
import type { Grain } from "../weigh/readings";

/** What a ticket may look like: the lines on it, the scale that prints it, and how it is then typed. */
const SHAPES: readonly { name: string; lines: readonly string[]; scale: ScaleKind; grain: Grain }[] = [
  {
    name: "An axle a line, and a gross",
    lines: ["steer", "drive", "trailer", "gross"],
    scale: "truck_scale",
    grain: "axles",
  },
  { name: "One total only", lines: ["gross"], scale: "truck_scale", grain: "gross" },
  {
    name: "One axle after the other",
    lines: ["axle 1", "axle 2", "axle 3", "axle 4"],
    scale: "single_platform",
    grain: "singly",
  },
  {
    name: "Wheel by wheel",
    lines: ["left · right", "left · right", "left · right"],
    scale: "wheel_pads",
    grain: "wheels",
  },
];

/** The ticket in the hand, chosen by its looks; then it is there to be typed. */
export function TicketShape() {
  const { rig, sheet, evaluation, newWeighIn, change } = useDesk();
  const { problem, attempt } = useAttempt();
  const navigate = useNavigate();
  const ball = rig.kind === "conventional" && evaluation.towing;
  const start = (scale: ScaleKind, grain: Grain) =>
    attempt(newWeighIn(scale, true), () => navigate(`/rigs/${sheet.id}/weigh`, { state: { begun: true, grain } }));
  return (
    <>
      {ball && (
        <div className="mb-4 flex flex-wrap items-center gap-3">
          <Bars />
          <span className="text-[1rem]">Spring bars on the hitch?</span>
          <Choice
            label="Spring bars on the hitch?"
            value={rig.hitch?.weight_distribution ? "yes" : "no"}
            options={[
              ["no", "no"],
              ["yes", "yes"],
            ]}
            onChange={(value) =>
              change([{ path: "hitch.weight_distribution", op: "set", value: value === "yes" }], "spring bars")
            }
          />
        </div>
      )}
      <div className="grid grid-cols-2 gap-3">
        {SHAPES.filter(({ grain }) => evaluation.towing || grain !== "singly").map(({ name, lines, scale, grain }) => (
          <button
            key={grain}
            type="button"
            data-shape={grain}
            className="flex flex-col border border-ink bg-card px-3 pt-3 pb-2 text-left hover:bg-sunk"
            onClick={() => void start(scale, grain)}
          >
            <span
              className="block min-h-24 border-x border-b border-dashed border-edge bg-paper px-2 py-1"
              aria-hidden="true"
            >
              {(evaluation.towing ? lines : lines.filter((line) => line !== "trailer")).map((line, index) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: the lines of a picture
                <span key={index} className="flex justify-between font-cond text-[0.9375rem]">
                  {line} <span className="tracking-[0.2em]">0000</span>
                </span>
              ))}
            </span>
            <span className="mt-1.5 block font-cond text-[1.0625rem] leading-tight font-semibold">{name}</span>
          </button>
        ))}
      </div>
      <Refused problem={problem} />
    </>
  );
}

/** A ball hitch with its spring bars below the trailer's frame. */
function Bars() {
  return (
    <svg
      viewBox="0 0 92 40"
      className="h-12 w-28 shrink-0"
      role="img"
      aria-label="Spring bars under the trailer's frame"
    >
      <g fill="none" stroke="currentColor" strokeLinejoin="round" strokeLinecap="round">
        <path d="M2 18h20l6 4" strokeWidth={2.4} />
        <path d="M30 16h20l40-4" strokeWidth={3} />
        <circle cx={30} cy={19} r={3.4} fill="currentColor" />
        <path d="M30 26q22 8 44 2" strokeWidth={2} />
        <path d="M74 28V14" strokeWidth={1.4} strokeDasharray="2 2" />
      </g>
    </svg>
  );
}
