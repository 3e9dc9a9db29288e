import { useDesk } from "../api/useSheet";
import { mass } from "../format";
import { TermMark } from "../ui/Glossary";

type Pull = "trailer" | "tongue";

/** The hitch as a chain: each link as thick as its rating, for the trailer's mass and for the tongue apart; the thinnest counts. */
export function Chain() {
  const { evaluation } = useDesk();
  const links = evaluation.chain;
  if (!links.some((link) => link.trailer !== null || link.tongue !== null)) return null;
  return (
    <div className="border-b border-rule py-2" data-part="chain">
      <Pulled pull="trailer" says="for the trailer's mass" />
      <Pulled pull="tongue" says={`for the ${evaluation.terms.tongue ?? "tongue"}`} />
    </div>
  );
}

function Pulled({ pull, says }: { pull: Pull; says: string }) {
  const { evaluation } = useDesk();
  const links = evaluation.chain;
  const known = links.map((link) => link[pull]).filter((rating) => rating !== null);
  if (known.length === 0) return null;
  const most = Math.max(...known);
  const least = Math.min(...known);
  const width = 320 / links.length;
  return (
    <figure>
      <figcaption className="text-[0.8125rem] text-soft">
        {says}
        {pull === "trailer" && <TermMark term="weakest_link" name="the weakest link" />}
      </figcaption>
      <svg viewBox="0 0 320 62" className="w-full" role="img" aria-label={`${says}: weakest link ${mass(least)}`}>
        {links.map((link, index) => {
          const rating = link[pull];
          const thick = rating === null ? 3 : Math.max(4, 20 * (rating / most) ** 2);
          const weakest = rating === least;
          const x = index * width;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a link's place in the chain is its name
            <g key={index} data-weakest={weakest}>
              <rect
                x={x + 3}
                y={34 - thick / 2}
                width={width - 6}
                height={thick}
                rx={thick / 2}
                fill={rating === null ? "none" : weakest ? "url(#chain-hatch)" : "var(--spruce)"}
                stroke="var(--ink)"
                strokeDasharray={rating === null ? "2 3" : undefined}
              />
              <text x={x + width / 2} y={13} textAnchor="middle" fontSize={12} fill="var(--soft)">
                {link.kind.length > 14 ? `${link.kind.slice(0, 13)}…` : link.kind}
              </text>
              <text
                x={x + width / 2}
                y={58}
                textAnchor="middle"
                fontSize={13}
                fontWeight={600}
                className="font-cond"
                fill="var(--ink)"
              >
                {rating === null ? "no figure" : `${mass(rating)}${weakest ? " weakest" : ""}`}
              </text>
            </g>
          );
        })}
        <defs>
          <pattern id="chain-hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="3" height="6" fill="var(--ochre)" />
          </pattern>
        </defs>
      </svg>
    </figure>
  );
}
