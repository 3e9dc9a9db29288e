/** Brackets over a rig: which rating spans what. Positions are of this drawing alone; it is no particular rig. */
const BRACKETS: readonly { term: string; from: number; to: number; y: number; up: boolean }[] = [
  { term: "gawr_front", from: 70, to: 118, y: 158, up: false },
  { term: "gawr_rear", from: 184, to: 232, y: 158, up: false },
  { term: "tongue_weight", from: 262, to: 304, y: 158, up: false },
  { term: "trailer.gawr", from: 396, to: 436, y: 158, up: false },
  { term: "trailer.axle_group", from: 396, to: 480, y: 190, up: false },
  { term: "gvwr", from: 70, to: 304, y: 190, up: false },
  { term: "trailer.gvwr", from: 262, to: 480, y: 222, up: false },
  { term: "gcwr", from: 70, to: 480, y: 254, up: false },
  { term: "curb_weight", from: 60, to: 160, y: 34, up: true },
  { term: "payload", from: 164, to: 304, y: 34, up: true },
  { term: "dry_weight", from: 318, to: 420, y: 34, up: true },
  { term: "trailer.ccc", from: 424, to: 500, y: 34, up: true },
  { term: "tow_rating", from: 262, to: 500, y: 12, up: true },
];

/** One drawing of how all the ratings fit together; each bracket is a button to its meaning. */
export function HowTheyFit(props: {
  name: (term: string) => string;
  /** The terms that this rig has. */
  known: ReadonlySet<string>;
  picked: string;
  onPick: (term: string) => void;
  /** Whether there is a trailer; without one, only what a vehicle has. */
  towing: boolean;
}) {
  const { name, known, picked, onPick, towing } = props;
  const brackets = BRACKETS.filter((each) => known.has(each.term));
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot hold a drawing
    <svg
      viewBox={towing ? "40 -10 480 286" : "40 10 290 200"}
      className={`block w-full ${towing ? "" : "mx-auto max-w-xl"}`}
      role="group"
      aria-label="How the ratings fit together"
    >
      <g fill="var(--card)" stroke="var(--ink)" strokeWidth={1.6} strokeLinejoin="round">
        <path d="M60 128V98l28-6 18-28h74v30h62v34Z" />
        <path d="M110 90l14-20h24v20zM152 90V70h22v20z" fill="var(--paper)" strokeWidth={1} />
        {towing && (
          <>
            <path d="M242 118h50l26 6" fill="none" strokeWidth={2.4} />
            <path d="M318 128V74q0-14 16-14h152q14 0 14 14v54Z" />
            <path d="M340 78h34v18h-34zM440 78h34v18h-34z" fill="var(--paper)" strokeWidth={1} />
          </>
        )}
        {[94, 208].map((x) => (
          <circle key={x} cx={x} cy={130} r={14} />
        ))}
        {towing && [416, 460].map((x) => <circle key={x} cx={x} cy={132} r={12} />)}
        <path d={towing ? "M40 145H520" : "M40 145H320"} />
      </g>
      {towing && <circle cx={283} cy={118} r={4} fill="var(--ink)" />}
      {brackets.map((bracket) => (
        <Bracket
          key={bracket.term}
          {...bracket}
          name={name(bracket.term)}
          picked={picked === bracket.term}
          onPick={() => onPick(bracket.term)}
        />
      ))}
    </svg>
  );
}

function Bracket(props: {
  term: string;
  from: number;
  to: number;
  y: number;
  up: boolean;
  name: string;
  picked: boolean;
  onPick: () => void;
}) {
  const { term, from, to, y, up, name, picked, onPick } = props;
  const lip = up ? 6 : -6;
  const color = picked ? "var(--spruce)" : "var(--ink)";
  const wide = to - from > 70;
  return (
    // biome-ignore lint/a11y/useSemanticElements: a button element cannot stand inside a drawing
    <g
      role="button"
      tabIndex={0}
      aria-label={name}
      data-term={term}
      className="cursor-pointer"
      onClick={onPick}
      onKeyDown={(event) => (event.key === "Enter" || event.key === " ") && onPick()}
    >
      <rect x={from - 4} y={up ? y - 16 : y - 8} width={to - from + 8} height={26} fill="transparent" />
      <path
        d={`M${from} ${y + lip}V${y}H${to}V${y + lip}`}
        fill="none"
        stroke={color}
        strokeWidth={picked ? 2.6 : 1.3}
      />
      <text
        x={(from + to) / 2}
        y={up ? y - 4 : y + 14}
        textAnchor="middle"
        fontSize={wide ? 12.5 : 11}
        fontWeight={600}
        className="font-cond"
        fill={color}
      >
        {name}
      </text>
    </g>
  );
}
