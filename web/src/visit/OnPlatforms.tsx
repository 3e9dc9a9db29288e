import type { VisitStep } from "../api/client";
import { useDesk } from "../api/useSheet";
import { layOut, NARROW } from "../drawing/layout";
import { Outlines } from "../drawing/Outlines";
import { useWidth } from "../ui/useWidth";

const SIZES = { ...NARROW, elevation: 96, side: 12 };
const WORDS = { front: "front", rear: "rear", trailer: "trailer" } as const;

/** This rig on the platforms of the scale: which axle stands on which. */
export function OnPlatforms({ step }: { step: VisitStep }) {
  const { evaluation } = useDesk();
  const [box, width] = useWidth();
  const towing = evaluation.towing && step.config === "hitched";
  const alone = step.config === "trailer_only";
  const layout = width ? layOut(evaluation.geometry, towing || alone, evaluation.checks, SIZES, width) : null;
  const named = (step.platforms ?? []).filter((each): each is keyof typeof WORDS => each in WORDS);
  return (
    <div ref={box} className="my-3">
      {layout && (
        <svg
          width={layout.width}
          height={layout.ground + 62}
          className="block"
          role="img"
          aria-label={sayPlatforms(named)}
        >
          <Outlines geometry={evaluation.geometry} towing={towing || alone} layout={layout} lit={null} />
          {named.map((name, index) => {
            const [from, to] = spanOf(name, layout.marks);
            const left = layout.across(from);
            const middle = layout.across((from + to) / 2);
            return (
              <g key={name}>
                <rect
                  x={left}
                  y={layout.ground}
                  width={layout.across(to) - left}
                  height={15}
                  fill={index === 0 ? "var(--spruce)" : "var(--card)"}
                  stroke="var(--ink)"
                  strokeWidth={1.8}
                />
                <text
                  x={middle}
                  y={layout.ground + 37}
                  textAnchor="middle"
                  fontSize={19}
                  fontWeight={600}
                  fill="var(--ink)"
                  className="font-cond"
                >
                  {index + 1}
                </text>
                <text
                  x={middle}
                  y={layout.ground + 56}
                  textAnchor="middle"
                  fontSize={15}
                  fill="var(--soft)"
                  className="font-cond"
                >
                  {WORDS[name]}
                </text>
              </g>
            );
          })}
        </svg>
      )}
    </div>
  );
}

const sayPlatforms = (named: readonly string[]) =>
  named
    .map((name, index) => `platform ${index + 1}: ${name === "trailer" ? "trailer axles" : `${name} axle`}`)
    .join(", ");

/** Where a platform begins and ends, in metres behind the front axle: its axles with room around them. */
function spanOf(name: keyof typeof WORDS, marks: { rear: number; axles: number[] }): [number, number] {
  if (name === "front") return [-0.9, Math.min(1.1, marks.rear / 2 - 0.1)];
  if (name === "rear") return [Math.max(marks.rear - 1.1, marks.rear / 2 + 0.1), marks.rear + 0.9];
  const first = marks.axles[0] ?? 0;
  return [first - 1.2, (marks.axles.at(-1) ?? first) + 1.2];
}
