import type { Advisory } from "../api/client";
import { useDesk } from "../api/useSheet";

/** The change that would right what a note is about, in one tap. */
export function FixButton({ fix }: { fix: NonNullable<Advisory["fix"]> }) {
  const { change } = useDesk();
  const apply = () =>
    change(
      fix.changes.map(({ path, op = "set", value }) => ({ path, op, value })),
      fix.label.toLowerCase(),
    );
  return (
    <button
      type="button"
      data-part="fix"
      onClick={apply}
      className="mr-3 min-h-11 border md:min-h-9 border-ink bg-paper px-3 font-cond text-[1rem] font-semibold"
    >
      {fix.label}
    </button>
  );
}
