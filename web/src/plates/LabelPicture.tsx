import type { ReactNode } from "react";
import type { TermSet } from "../api/client";
import { useDesk } from "../api/useSheet";

/** Where a label sits and which of its lines to read; drawn, generic, of no maker. */
export type Sign =
  | "certification"
  | "placard"
  | "addon"
  | "guide"
  | "receiver"
  | "mount"
  | "plate"
  | "trailer"
  | "cargo"
  | "dealer"
  | "sidewall"
  | "measure";

type Line = readonly [text: string, read?: boolean];

type Drawn = { scene: "door" | "trailer" | "hitch" | "tire" | "paper" | "tape"; lines: readonly Line[] };
const SIGNS: Record<Sign, Drawn> = {
  certification: {
    scene: "door",
    lines: [
      ["MADE IN … MONTH, YEAR"],
      ["GVWR  0000 LB / 0000 KG", true],
      ["FRONT GAWR  0000 WITH … TIRES", true],
      ["REAR GAWR  0000 WITH … TIRES", true],
      ["IDENTIFICATION NUMBER"],
    ],
  },
  placard: {
    scene: "door",
    lines: [
      ["TIRE AND LOADING INFORMATION"],
      ["COMBINED WEIGHT OF OCCUPANTS AND"],
      ["CARGO SHOULD NEVER EXCEED  0000", true],
      ["FRONT  SIZE  COLD PRESSURE", true],
      ["REAR  SIZE  COLD PRESSURE", true],
    ],
  },
  addon: {
    scene: "door",
    lines: [["MODIFIED AFTER IT WAS BUILT"], ["LOAD CARRYING CAPACITY"], ["REDUCED BY  000", true], ["ADDED BY …"]],
  },
  guide: {
    scene: "paper",
    lines: [
      ["engine · ratio · cab · drive"],
      ["A   0.00   …   0,000   00,000"],
      ["B   0.00   …   0,000   00,000", true],
      ["C   0.00   …   0,000   00,000"],
    ],
  },
  receiver: {
    scene: "hitch",
    lines: [
      ["WEIGHT CARRYING"],
      ["TRAILER 0000   TONGUE 000", true],
      ["WEIGHT DISTRIBUTING"],
      ["TRAILER 0000   TONGUE 000", true],
    ],
  },
  mount: {
    scene: "hitch",
    lines: [
      ["STAMPED ON EACH PART"],
      ["MAX. TRAILER  0000", true],
      ["MAX. TONGUE  000", true],
      ["BALL: SIZE ON ITS TOP", true],
    ],
  },
  plate: {
    scene: "hitch",
    lines: [["LABEL ON THE HITCH HEAD OR RAIL"], ["MAX. TRAILER  00000", true], ["MAX. PIN  0000", true]],
  },
  trailer: {
    scene: "trailer",
    lines: [
      ["MADE IN … MONTH, YEAR"],
      ["GVWR  0000 LB / 0000 KG", true],
      ["GAWR, EACH AXLE  0000", true],
      ["TIRES  SIZE  COLD PRESSURE", true],
    ],
  },
  cargo: {
    scene: "trailer",
    lines: [["THE WEIGHT OF CARGO SHOULD"], ["NEVER EXCEED  0000", true], ["A FULL LOAD OF WATER IS  000", true]],
  },
  dealer: {
    scene: "paper",
    lines: [
      ["brochure weight  0,000"],
      ["+ options always fitted  000"],
      ["weight as built  0,000", true],
      ["hitch or pin weight  000", true],
    ],
  },
  sidewall: {
    scene: "tire",
    lines: [
      ["SIZE  LOAD INDEX", true],
      ["LOAD RANGE", true],
      ["MAX LOAD SINGLE / DUAL", true],
      ["AT … COLD, MAX PRESSURE", true],
      ["LAST FOUR: WEEK, YEAR", true],
    ],
  },
  measure: {
    scene: "tape",
    lines: [
      ["axle to axle", true],
      ["rear axle to ball", true],
      ["coupler to middle of axles", true],
    ],
  },
};

/** What the labels of a region say instead. */
const REGIONAL: Partial<Record<TermSet, Partial<typeof SIGNS>>> = {
  europe: {
    certification: {
      scene: "door",
      lines: [
        ["e0*0000/00*0000*00"],
        ["0000 kg", true],
        ["0000 kg with the trailer", true],
        ["1 – 000 kg", true],
        ["2 – 000 kg", true],
      ],
    },
    guide: {
      scene: "paper",
      lines: [
        ["G    mass in service 0000", true],
        ["O.1  braked 0000", true],
        ["O.2  unbraked 000", true],
      ],
    },
    receiver: {
      scene: "hitch",
      lines: [["e0 00-0000"], ["S  000 kg", true], ["D  00,0 kN", true]],
    },
    trailer: {
      scene: "trailer",
      lines: [["e0*0000/00*0000"], ["0000 kg", true], ["0 – 000 kg on the ball", true], ["1 – 0000 kg", true]],
    },
  },
  australia: {
    certification: {
      scene: "door",
      lines: [["BUILT …"], ["GVM  0000 KG", true], ["FRONT AXLE  0000", true], ["REAR AXLE  0000", true]],
    },
    guide: {
      scene: "paper",
      lines: [["engine · gearbox · drive"], ["GCM  0000", true], ["BRAKED 0000   BALL 000", true]],
    },
    receiver: {
      scene: "hitch",
      lines: [["TOW BAR"], ["MAX. TRAILER  0000 KG", true], ["MAX. BALL LOAD  000 KG", true]],
    },
    trailer: {
      scene: "trailer",
      lines: [["BUILT …"], ["ATM  0000 KG", true], ["GTM  0000 KG", true], ["TARE  0000 KG", true]],
    },
  },
};

const SCENES: Record<string, ReactNode> = {
  door: (
    <>
      <path d="M6 74V46l16-4 14-18h42v22h24v28Z" />
      <circle cx={26} cy={76} r={9} />
      <circle cx={86} cy={76} r={9} />
      <path d="M40 46h20v26H40z" fill="var(--sunk)" />
      <path d="M62 44v30" strokeWidth={3} />
      <path d="M62 58L118 36" stroke="var(--spruce)" strokeDasharray="3 3" />
      <rect x={59} y={53} width={7} height={10} fill="var(--spruce)" stroke="none" />
    </>
  ),
  car: (
    <>
      <path d="M4 74V58q2-8 16-10l16-16h42l18 18q12 2 12 10v14Z" />
      <circle cx={26} cy={76} r={9} />
      <circle cx={88} cy={76} r={9} />
      <path d="M40 48h22v26H40z" fill="var(--sunk)" />
      <path d="M64 46v30" strokeWidth={3} />
      <path d="M64 60L118 36" stroke="var(--spruce)" strokeDasharray="3 3" />
      <rect x={61} y={55} width={7} height={10} fill="var(--spruce)" stroke="none" />
    </>
  ),
  trailer: (
    <>
      <path d="M4 72h16l8-8V30q0-8 8-8h58q8 0 8 8v42Z" />
      <path d="M54 72V36h14v36" fill="none" />
      <circle cx={74} cy={75} r={7} />
      <circle cx={90} cy={75} r={7} />
      <path d="M36 60L118 36" stroke="var(--spruce)" strokeDasharray="3 3" />
      <rect x={31} y={55} width={8} height={11} fill="var(--spruce)" stroke="none" />
    </>
  ),
  hitch: (
    <>
      <path d="M4 34h44v18H4z" />
      <path d="M48 38h26v10H48zM74 34h12v28H60v-8h14z" />
      <path d="M66 34V26h4v8" />
      <circle cx={68} cy={20} r={7} />
      <path d="M30 43L118 36" stroke="var(--spruce)" strokeDasharray="3 3" />
      <rect x={18} y={38} width={14} height={9} fill="var(--spruce)" stroke="none" />
    </>
  ),
  tire: (
    <>
      <circle cx={52} cy={50} r={36} />
      <circle cx={52} cy={50} r={20} />
      <circle cx={52} cy={50} r={7} />
      <path d="M30 32a28 28 0 0144 0" fill="none" stroke="var(--spruce)" strokeWidth={4} />
      <path d="M76 34L118 36" stroke="var(--spruce)" strokeDasharray="3 3" />
    </>
  ),
  paper: (
    <>
      <path d="M16 10h54l12 12v64H16Z" />
      <path d="M70 10v12h12M26 36h46M26 48h46M26 72h46" fill="none" strokeWidth={1} />
      <path d="M26 60h46" stroke="var(--spruce)" strokeWidth={4} />
      <path d="M74 60L118 46" stroke="var(--spruce)" strokeDasharray="3 3" />
    </>
  ),
  tape: (
    <>
      <path d="M4 60h100" strokeDasharray="2 4" />
      <circle cx={16} cy={60} r={8} />
      <circle cx={52} cy={60} r={8} />
      <circle cx={96} cy={60} r={8} />
      <path d="M16 40v-8h36v8M52 32h14v8M66 40v-8h30v8" fill="none" stroke="var(--spruce)" strokeWidth={1.6} />
    </>
  ),
};

export function LabelPicture({ sign }: { sign: Sign }) {
  const { rig } = useDesk();
  const { scene, lines } = REGIONAL[rig.terms ?? "north_america"]?.[sign] ?? SIGNS[sign];
  const height = 14 + lines.length * 15;
  return (
    <svg
      viewBox="0 0 340 96"
      className="my-1 block w-full max-w-[26rem]"
      role="img"
      aria-label={`Where it is, and what to read: ${lines
        .filter(([, read]) => read)
        .map(([text]) => text)
        .join(", ")}`}
    >
      <g fill="var(--card)" stroke="var(--ink)" strokeWidth={1.4} strokeLinejoin="round">
        {SCENES[scene === "door" && rig.vehicle?.body !== "pickup" ? "car" : scene]}
      </g>
      <rect x={118} y={(96 - height) / 2} width={220} height={height} fill="var(--card)" stroke="var(--ink)" />
      {lines.map(([text, read], index) => {
        const y = (96 - height) / 2 + 17 + index * 15;
        return (
          <g key={text}>
            {read && <rect x={122} y={y - 11} width={4} height={13} fill="var(--spruce)" />}
            <text
              x={131}
              y={y}
              fontSize={12}
              className="font-cond"
              fontWeight={read ? 600 : 400}
              fill={read ? "var(--ink)" : "var(--soft)"}
            >
              {text}
            </text>
          </g>
        );
      })}
    </svg>
  );
}
