import { type ReactNode, useEffect, useState } from "react";
import { Link, useLocation, useNavigate } from "react-router";
import { api, type EquipmentKind } from "../api/client";
import { useDesk } from "../api/useSheet";
import { RigDrawing } from "../drawing/RigDrawing";
import { useGlossary } from "../ui/Glossary";
import { PasteText } from "../ui/Paste";
import { Standing } from "../ui/Standing";
import { useAttempt } from "../ui/useAttempt";
import { FindField, Needed } from "./FindField";
import { HitchPlates } from "./HitchPlates";
import { UnfoldContext, unfold } from "./Plate";
import { PolicyPlate } from "./PolicyPlate";
import { ReadyList } from "./ReadyList";
import { RigPlate } from "./RigPlate";
import { TirePlates } from "./TirePlates";
import { TrailerPlates } from "./TrailerPlates";
import { VehiclePlates } from "./VehiclePlates";

/** Brings the field that the address names into view, when a working sent somebody here. */
function useFieldInAddress() {
  const { hash } = useLocation();
  useEffect(() => {
    const path = decodeURIComponent(hash.slice(1));
    if (!path) return;
    const input = document.querySelector<HTMLInputElement>(`input[data-path="${CSS.escape(path)}"]`);
    if (!input) return;
    void unfold(input).then(() => {
      input.scrollIntoView({ block: "center" });
      input.focus();
    });
  }, [hash]);
}

/** Every rating, copied off its label once, with where it came from. */
export function Plates() {
  const { evaluation, rig, change } = useDesk();
  const look = useGlossary();
  const [finding, setFinding] = useState(false);
  useFieldInAddress();
  const parts = [
    ["vehicle", "vehicle"],
    ...(rig.trailer
      ? ([
          ["hitch", "hitch"],
          ["trailer", "trailer"],
        ] as const)
      : []),
    ["tires", "tires"],
    ["rules", "units and rules"],
    ["ready", "before it rolls"],
  ] as const;
  const tow = (style: "box" | "towed_car") =>
    change(
      [
        { path: "trailer", op: "set", value: style === "box" ? {} : { style } },
        {
          path: "hitch",
          op: "set",
          value: { parts: [{ kind: "receiver" }, { kind: style === "box" ? "ball" : "tow bar" }] },
        },
      ],
      "something to tow",
    );
  return (
    <UnfoldContext value={finding}>
      <Standing />
      <RigDrawing evaluation={evaluation} short />
      <div className="mx-auto max-w-[87.5rem] px-4 py-4 lg:px-6">
        <p className="max-w-[86ch] text-[0.9375rem] leading-snug">
          Copy each label once. Leave out what you do not have: its check says so.{" "}
          <span className="max-md:hidden">
            A field takes a unit or a sum, “1380 kg” or “180+165+60”; the small tag says where the figure came from.
          </span>
        </p>
        <Needed />
        <FindField onAsk={setFinding} />
        <nav
          aria-label="Parts of this page"
          className="mt-2 mb-4 flex flex-wrap items-center gap-x-4 gap-y-1 font-cond text-[1rem]"
        >
          {parts.map(([id, name]) => (
            <button
              key={id}
              type="button"
              className="underline underline-offset-2 max-md:hidden"
              onClick={() => document.getElementById(`part-${id}`)?.scrollIntoView({ block: "start" })}
            >
              {name}
            </button>
          ))}
          <button type="button" className="underline underline-offset-2" onClick={() => look("gvwr")}>
            how the ratings fit together
          </button>
          <PasteText className="md:min-h-0!" />
          <Link to="/garage" className="underline underline-offset-2">
            the garage
          </Link>
        </nav>
        <div className={`items-start gap-5 md:grid md:grid-cols-2 ${rig.trailer ? "lg:grid-cols-3" : ""}`}>
          <Part id="vehicle" title="The vehicle" kind="vehicle">
            <VehiclePlates />
          </Part>
          {rig.trailer && (
            <Part id="hitch" title="The hitch" kind="hitch">
              <HitchPlates />
            </Part>
          )}
          {rig.trailer ? (
            <Part
              id="trailer"
              title={rig.trailer.style === "towed_car" ? "The towed car" : "The trailer"}
              kind="trailer"
            >
              <TrailerPlates />
            </Part>
          ) : (
            <p className="mb-4 border border-rule px-3 py-2 text-[0.9375rem]">
              It tows nothing yet.{" "}
              <button type="button" className="mx-1 underline" onClick={() => tow("box")}>
                Add a trailer
              </button>{" "}
              or{" "}
              <button type="button" className="mx-1 underline" onClick={() => tow("towed_car")}>
                a car on its own wheels
              </button>
            </p>
          )}
        </div>
        <Part id="tires" title="Tires, and the weakest part of each axle">
          <TirePlates />
        </Part>
        <Part id="rules" title="Units and rules">
          <div className="items-start gap-5 md:grid md:grid-cols-2">
            <RigPlate />
            <PolicyPlate />
          </div>
        </Part>
        <Part id="ready">
          <ReadyList />
        </Part>
      </div>
    </UnfoldContext>
  );
}

function Part(props: { id: string; title?: string; kind?: EquipmentKind; children: ReactNode }) {
  return (
    <div id={`part-${props.id}`} className="scroll-mt-4 md:scroll-mt-[230px]">
      {props.title && (
        <div className="mb-2 flex items-baseline gap-3">
          <h2 className="font-cond text-[1.375rem] font-semibold">{props.title}</h2>
          {props.kind && <Shared kind={props.kind} />}
        </div>
      )}
      {props.children}
    </div>
  );
}

/** Which other rigs have this vehicle, hitch or trailer; and trying a copy of it in a rig of its own. */
function Shared({ kind }: { kind: EquipmentKind }) {
  const { sheet, rig } = useDesk();
  const navigate = useNavigate();
  const { problem, attempt } = useAttempt();
  const others = sheet.shared[kind] ?? [];
  const copy = () =>
    attempt(api.copyRig(sheet.id, `${rig.name || "A rig"}, another ${kind}`, [kind]), ({ id }) =>
      navigate(`/rigs/${id}/plates`),
    );
  return (
    <span className="min-w-0 text-[0.8125rem] leading-tight text-soft">
      {others.length > 0 && <span className="mr-2">also in {others.join(", ")}</span>}
      <button type="button" className="underline" onClick={() => void copy()}>
        try a copy of it
      </button>
      {problem && <span className="ml-2 font-semibold text-ink">{problem}</span>}
    </span>
  );
}
