import type { ReactNode } from "react";

/** Pictures of the help: few lines, drawn by the same hand as the rig. Each says in words what it shows. */
function Picture({ says, children }: { says: string; children: ReactNode }) {
  return (
    <figure>
      <svg viewBox="0 0 280 120" className="block w-full" role="img" aria-label={says}>
        {children}
      </svg>
      <figcaption className="mt-1 text-[0.875rem] leading-snug text-soft">{says}</figcaption>
    </figure>
  );
}

const INK = { stroke: "var(--ink)", strokeWidth: 1.8, fill: "none" } as const;

function Rig() {
  return (
    <g {...INK}>
      <path d="M8 62V46H34L46 30H82V46H112V62H8Z" fill="var(--paper)" />
      <path d="M112 58H134" strokeWidth={2.6} />
      <path d="M136 62V24Q136 18 144 18H262V62H136Z" fill="var(--paper)" />
      {[28, 94, 204, 224].map((x) => (
        <circle key={x} cx={x} cy={64} r={9} fill="var(--paper)" />
      ))}
      <path d="M0 73H280" />
    </g>
  );
}

const Says = ({ x, y, children, strong = false }: { x: number; y: number; children: ReactNode; strong?: boolean }) => (
  <text
    x={x}
    y={y}
    fontSize={13}
    textAnchor="middle"
    fontWeight={strong ? 600 : 400}
    fill="var(--ink)"
    className="font-cond"
  >
    {children}
  </text>
);

export function PlatformIsNotTrailer() {
  return (
    <Picture says="The platform carries the axles' load; the hitch carries the rest of the trailer.">
      <Rig />
      <rect x={184} y={73} width={62} height={10} fill="var(--spruce)" stroke="var(--ink)" />
      <path d="M134 58V92" stroke="var(--ink)" strokeDasharray="3 3" />
      <Says x={134} y={108}>
        on the hitch
      </Says>
      <Says x={216} y={100}>
        on the platform
      </Says>
    </Picture>
  );
}

export function CountedOnce() {
  return (
    <Picture says="The hitch load is part of the vehicle and of the trailer, and counts once in both together.">
      <Rig />
      <g {...INK}>
        <path d="M10 84V89H136V84" />
        <path d="M124 96V101H262V96" />
      </g>
      <Says x={66} y={102}>
        vehicle, coupled
      </Says>
      <Says x={200} y={115}>
        trailer, in total
      </Says>
    </Picture>
  );
}

export function FrontGetsLighter() {
  return (
    <Picture says="Load behind the rear axle lifts the front: the rear axle gains more than the tongue weighs.">
      <Rig />
      <g stroke="var(--ink)" strokeWidth={2.2} fill="none">
        <path d="M28 104V84M22 90L28 82L34 90" />
        <path d="M94 82V110M88 103L94 111L100 103" />
        <path d="M134 82V100M129 94L134 101L139 94" />
      </g>
      <Says x={58} y={102}>
        front lighter
      </Says>
    </Picture>
  );
}

export function AxlesAndTotal() {
  const posts = [
    { x: 30, fill: 0.8, says: "front" },
    { x: 90, fill: 1.08, says: "rear" },
    { x: 150, fill: 0.9, says: "tongue" },
    { x: 210, fill: 0.6, says: "trailer" },
  ];
  return (
    <Picture says="Four limits, one of them exceeded: the others do not make up for it.">
      {posts.map(({ x, fill, says }) => (
        <g key={says}>
          <rect
            x={x}
            y={84 - 64 * Math.min(fill, 1)}
            width={30}
            height={64 * Math.min(fill, 1)}
            fill={fill > 1 ? "var(--vermilion)" : "var(--spruce)"}
          />
          {fill > 1 && <rect x={x - 6} y={12} width={42} height={8} fill="var(--vermilion)" />}
          <rect x={x} y={20} width={30} height={64} {...INK} />
          <Says x={x + 15} y={102}>
            {says}
          </Says>
        </g>
      ))}
    </Picture>
  );
}

export function WeakestPart() {
  const links = [
    ["receiver", 26],
    ["ball mount", 22],
    ["ball", 12],
    ["coupler", 24],
  ] as const;
  return (
    <Picture says="The hitch is a chain: the part with the smallest rating is the hitch's rating.">
      {links.map(([says, thick], index) => (
        <g key={says}>
          <rect
            x={10 + index * 67}
            y={46 - thick / 2}
            width={60}
            height={thick}
            fill={says === "ball" ? "none" : "var(--sunk)"}
            stroke={says === "ball" ? "var(--vermilion)" : "var(--ink)"}
            strokeWidth={says === "ball" ? 2.6 : 1.8}
          />
          <Says x={40 + index * 67} y={84} strong={says === "ball"}>
            {says}
          </Says>
        </g>
      ))}
    </Picture>
  );
}

export function Stopping() {
  return (
    <Picture says="The same brakes, a tenth more mass: about a tenth more road.">
      <g {...INK}>
        <path d="M14 40H214M214 32V48M14 32V48" />
        <path d="M14 84H234M234 76V92M14 76V92" />
      </g>
      <path d="M214 84H234" stroke="var(--vermilion)" strokeWidth={5} />
      <Says x={110} y={32}>
        within its rating
      </Says>
      <Says x={110} y={76}>
        a tenth over
      </Says>
    </Picture>
  );
}
