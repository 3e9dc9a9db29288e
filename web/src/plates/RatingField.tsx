import { at } from "../api/identity";
import { useDesk } from "../api/useSheet";

import { Field } from "../ui/Field";

const isByMode = (value: unknown): value is { carrying?: unknown; distributing?: unknown } =>
  typeof value === "object" && value !== null;

/** A rating that may differ with the hitch's mode: one figure, or one for each. */
export function RatingField(props: { path: string; label: string; unit: string; term?: string }) {
  const { path, label, unit, term } = props;
  const { rig, change, field } = useDesk();
  const value = at(rig, path);
  const both = isByMode(value) || field(`${path}.carrying`) || field(`${path}.distributing`);
  const toggle = "ml-2 font-cond text-[0.8125rem] text-soft underline underline-offset-2 hover:text-ink";
  if (!both) {
    return (
      <div className="border-b border-rule last:border-b-0">
        <Field path={path} label={label} unit={unit} sourced term={term} />
        {value !== undefined && rig.hitch?.weight_distribution && (
          <button
            type="button"
            className={`${toggle} mb-1 ml-0`}
            onClick={() => change([{ path, op: "set", value: { carrying: value } }], `${label}, by mode`)}
          >
            differs with and without spring bars
          </button>
        )}
      </div>
    );
  }
  return (
    <>
      <Field path={`${path}.distributing`} label={label} hint="weight distributing" unit={unit} sourced term={term} />
      <Field path={`${path}.carrying`} label={label} hint="weight carrying" unit={unit} sourced />
    </>
  );
}
