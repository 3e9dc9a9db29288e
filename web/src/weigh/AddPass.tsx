import { DropdownMenu } from "radix-ui";
import type { Evaluation, Pass } from "../api/client";
import { useDesk } from "../api/useSheet";
import { MenuBody, MenuItem } from "../ui/Menu";

type Fresh = Pick<Pass, "config" | "spring_bars">;

/** The passes that this rig can be weighed in, in words and as the rig file says them. */
export function passKinds(evaluation: Evaluation, bars: boolean): readonly (readonly [string, Fresh])[] {
  return evaluation.towing
    ? [
        ...(bars
          ? ([
              ["Hitched, bars engaged", { config: "hitched", spring_bars: "engaged" }],
              ["Hitched, bars slack", { config: "hitched", spring_bars: "slack" }],
            ] as const)
          : ([["Hitched", { config: "hitched", spring_bars: "none" }]] as const)),
        ["Vehicle only", { config: "vehicle_only" }],
        ["Vehicle empty", { config: "vehicle_empty" }],
        ["Trailer only", { config: "trailer_only" }],
      ]
    : [
        ["Loaded as for the road", { config: "vehicle_only" }],
        ["Vehicle empty", { config: "vehicle_empty" }],
      ];
}

/** Adds a pass of any kind: passes come in any order and number. */
export function AddPass({ weighIn, onAdded }: { weighIn: number; onAdded: () => void }) {
  const { rig, change, evaluation } = useDesk();
  const kinds = passKinds(evaluation, rig.hitch?.weight_distribution ?? false);
  const passes = rig.weigh_ins?.[weighIn - 1]?.passes ?? [];
  const unit = passes.at(-1)?.unit;
  const add = (fresh: Fresh) => {
    const value = { ...fresh, ...(unit ? { unit } : {}), readings: {} };
    change([{ path: `weigh_ins[${weighIn - 1}].passes[${passes.length}]`, op: "insert", value }], "add a pass");
    onAdded();
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="min-h-10 border border-ink px-3 font-cond text-[1.0625rem] font-semibold hover:bg-sunk">
        Add a pass
      </DropdownMenu.Trigger>
      <MenuBody>
        {kinds.map(([label, fresh]) => (
          <MenuItem key={label} onSelect={() => add(fresh)}>
            {label}
          </MenuItem>
        ))}
      </MenuBody>
    </DropdownMenu.Root>
  );
}
