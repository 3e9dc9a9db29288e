import { useEffect } from "react";
import { useLocation } from "react-router";
import { useDesk } from "../api/useSheet";
import { RigDrawing } from "../drawing/RigDrawing";
import { Choice } from "../ui/controls";
import { Field } from "../ui/Field";
import { HitchPlates } from "./HitchPlates";
import { Plate } from "./Plate";
import { PolicyPlate } from "./PolicyPlate";
import { TrailerPlates } from "./TrailerPlates";
import { VehiclePlates } from "./VehiclePlates";

const TERMS = [
  ["north_america", "North America"],
  ["australia", "Australia, NZ"],
  ["europe", "Europe, UK"],
] as const;

/** Brings the field that the address names into view, when a working sent somebody here. */
function useFieldInAddress() {
  const { hash } = useLocation();
  useEffect(() => {
    const path = decodeURIComponent(hash.slice(1));
    if (!path) return;
    const input = document.querySelector<HTMLInputElement>(`input[data-path="${CSS.escape(path)}"]`);
    input?.scrollIntoView({ block: "center" });
    input?.focus();
  }, [hash]);
}

/** Every rating, copied off its label once, with where it came from. */
export function Plates() {
  const { evaluation, rig, change } = useDesk();
  useFieldInAddress();
  return (
    <>
      <div className="border-b border-ink bg-paper md:sticky md:top-0 md:z-10">
        <RigDrawing evaluation={evaluation} short />
      </div>
      <div className="mx-auto max-w-[1400px] px-4 py-4 lg:px-6">
        <p className="mb-3 max-w-[80ch] text-[15px] leading-snug">
          Copy each label once. Leave out what you do not have: its check says so. A field takes a unit or a sum, “1450
          kg” or “180+165+60”; the small tag says where the figure came from.
        </p>
        <div className="items-start gap-5 md:grid md:grid-cols-2 lg:grid-cols-3">
          <div>
            <h2 className="mb-2 font-cond text-[22px] font-semibold">The vehicle</h2>
            <VehiclePlates />
          </div>
          {rig.trailer && (
            <div>
              <h2 className="mb-2 font-cond text-[22px] font-semibold">The hitch</h2>
              <HitchPlates />
            </div>
          )}
          <div>
            {rig.trailer && (
              <>
                <h2 className="mb-2 font-cond text-[22px] font-semibold">The trailer</h2>
                <TrailerPlates />
              </>
            )}
            <Plate title="The rig">
              <Field path="name" label="Name" mode="text" />
              <div className="flex flex-wrap items-center justify-between gap-2 py-1.5">
                <span className="text-[15px]">Terms of</span>
                <Choice
                  label="Set of terms"
                  value={rig.terms ?? "north_america"}
                  options={TERMS}
                  onChange={(value) => change([{ path: "terms", op: "set", value }], "set of terms")}
                />
              </div>
            </Plate>
            <PolicyPlate />
          </div>
        </div>
      </div>
    </>
  );
}
