import { useWords } from "../ui/useTerms";
import type { Method } from "./Tongue";

const line = { fill: "none", stroke: "var(--ink)", strokeWidth: 1.6 } as const;
const said = { fontSize: 12, fill: "var(--soft)", textAnchor: "middle" } as const;

const Ground = () => <path d="M0 92H320" stroke="var(--ink)" strokeWidth={1.4} />;
const Coupler = ({ x }: { x: number }) => (
  <g>
    <path {...line} d={`M${x} 40h70M${x} 40v12`} strokeWidth={2.4} />
    <circle cx={x} cy={40} r={4} fill="var(--ink)" />
    <path d={`M${x} 8v20m-4 -6l4 7 4 -7`} {...line} />
  </g>
);
const Length = ({ from, to, y, label }: { from: number; to: number; y: number; label: string }) => (
  <g>
    <path {...line} strokeWidth={1} d={`M${from} ${y - 4}v8M${to} ${y - 4}v8M${from} ${y}H${to}`} />
    <text {...said} x={(from + to) / 2} y={y + 14}>
      {label}
    </text>
  </g>
);

/** How to set each measurement up, with the lengths it asks for. */
export function MethodDrawing({ method }: { method: Method }) {
  const tongue = useWords()("tongue");
  return (
    <svg
      viewBox="0 0 320 116"
      className="mb-1 w-full max-w-[21.25rem]"
      role="img"
      aria-label={`How it is set up: ${method.replaceAll("_", " ")}`}
    >
      <Ground />
      {method === "scale" && (
        <>
          <Coupler x={150} />
          <path {...line} d="M150 52v22M132 74h36v18h-36z" />
          <text {...said} x={150} y={110}>
            scale under coupler or jack, at towing height
          </text>
        </>
      )}
      {method === "ball_mount_scale" && (
        <>
          <Coupler x={150} />
          <path {...line} d="M40 60H128V46H150V52M128 60v14H40" />
          <rect x={104} y={54} width={24} height={14} fill="var(--ochre)" stroke="var(--ink)" />
          <text {...said} x={150} y={110}>
            coupled; read it when it has stopped climbing
          </text>
        </>
      )}
      {method === "beam_scale" && (
        <>
          <Coupler x={130} />
          <path {...line} strokeWidth={3} d="M60 56H270" />
          <path {...line} d="M52 92l8 -36 8 36M130 52v4M252 60h36v32h-36z" />
          <Length from={60} to={130} y={74} label="support to coupler" />
          <Length from={60} to={270} y={100} label="support to scale" />
        </>
      )}
      {method === "lever" && (
        <>
          <Coupler x={110} />
          <path {...line} strokeWidth={3} d="M100 56H300" />
          <path {...line} d="M132 92l8 -36 8 36M278 56v8M264 64h28v24h-28z" />
          <Length from={110} to={140} y={74} label="" />
          <Length from={140} to={278} y={100} label="arm of the known weight" />
          <text {...said} x={92} y={78} textAnchor="end">
            {tongue} arm
          </text>
        </>
      )}
    </svg>
  );
}
