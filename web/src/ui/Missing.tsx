import { Link } from "react-router";
import { useDesk } from "../api/useSheet";
import { capital } from "../format";

/** Figures that all terms call the same; the others are named by the rig's own terms. */
const NAMES: Record<string, string> = {
  "vehicle.geometry.wheelbase": "Wheelbase",
  "vehicle.geometry.hitch_offset": "Hitch point behind the rear axle",
  "trailer.geometry.coupler_to_axles": "Coupler to axles",
  "plan.vehicle_base.front": "Front axle without the listed items",
  "plan.vehicle_base.rear": "Rear axle without the listed items",
  "plan.trailer_base.gross": "Trailer without the listed items",
  "plan.trailer_base.tongue": "Load on the hitch without the listed items",
};
const LISTED = /^(loads|tanks)\[(\d+)\]\.position$/;

/** Figures that an answer still needs: each by its name, with a way to its field and why it is needed. */
export function Missing({ figures }: { figures: readonly { path: string; message: string }[] }) {
  const { sheet, rig, evaluation } = useDesk();
  const nameOf = (path: string) => {
    const [, list, at] = LISTED.exec(path) ?? [];
    const listed = list === "loads" ? rig.loads?.[Number(at)] : list === "tanks" ? rig.tanks?.[Number(at)] : undefined;
    if (list) return `Place of ${listed?.name || "an item"}`;
    const term = evaluation.terms[path.split(".").at(-1) ?? ""];
    return (
      NAMES[path] ?? (term ? capital(term) : undefined) ?? path.split(".").slice(-2).join(", ").replaceAll("_", " ")
    );
  };
  return figures.map(({ path, message }) => (
    <p key={path} className="mt-1 text-[0.9375rem] leading-snug" data-missing={path}>
      {path === "weigh_ins" && "It "}
      {path && path !== "weigh_ins" && (
        <>
          <Link
            className="underline"
            to={`/rigs/${sheet.id}/${/^(plan|loads|tanks)\b/.test(path) ? "pack" : "plates"}#${path}`}
          >
            {nameOf(path)}
          </Link>{" "}
        </>
      )}
      {message.replace(/\.$/, "")}.
    </p>
  ));
}
