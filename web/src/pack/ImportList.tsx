import { api, type ListPreview } from "../api/client";
import { useDesk } from "../api/useSheet";
import { mass } from "../format";
import { Choice } from "../ui/controls";
import { ImportTable } from "../ui/ImportTable";

const COLUMN_WORDS = {
  name: "what",
  mass: "mass of one",
  quantity: "how many",
  position: "place",
  on: "vehicle or trailer",
  category: "category",
  side: "right of the middle",
  height: "height above the floor",
  effort: "effort to leave, move, swap",
  secured: "held by",
  aboard: "comes along, yes or no",
  sources: "where its figures are from",
};

const LENGTHS = ["in", "ft", "mm", "cm", "m"] as const;

/** A spreadsheet's list of items. */
export function ImportList({ on, onDone }: { on: "vehicle" | "trailer"; onDone: () => void }) {
  const { sheet, ask, rig } = useDesk();
  return (
    <ImportTable<ListPreview["written"], ListPreview>
      words={COLUMN_WORDS}
      row="an item"
      example={"what;kg;how many\nkiln;95;1\nclay;12,5;8"}
      preview={(text, written) =>
        api.previewItems(sheet.id, written ? { text, written: { ...written, on } } : { text })
      }
      take={(text, written) =>
        ask((id, key, number) => api.importItems(id, { text, written: { ...written, on } }, key, number))
      }
      says={(seen) => `${seen.count.toLocaleString("en-US")} items, ${mass(seen.total)} ${rig.units.mass} in all.`}
      some={(seen) => seen.count > 0}
      more={(written, put) =>
        "position" in written.columns && (
          <span>
            Bare places in{" "}
            <Choice
              label="Unit of bare places"
              value={written.length}
              options={LENGTHS.map((unit) => [unit, unit] as const)}
              onChange={(length) => put({ length })}
            />
          </span>
        )
      }
      onDone={onDone}
    />
  );
}
