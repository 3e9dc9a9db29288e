import { useDesk } from "../api/useSheet";
import { capital, mass } from "../format";

/** The tongue by each school of practice, side by side: the spread is the lesson, the highest the one to plan for. */
export function Schools() {
  const { sheet, evaluation } = useDesk();
  const { schools } = sheet.pack;
  const most = Math.max(...schools.map((school) => school.value), 1);
  return (
    <section
      aria-label={`${capital(evaluation.terms.tongue_weight ?? "tongue weight")}, by each school`}
      className="mt-6 border-t border-ink pt-2"
    >
      <h2 className="font-cond text-[1.125rem] font-semibold">
        {capital(evaluation.terms.tongue_weight ?? "tongue weight")}, by each school, in {evaluation.units.mass}
      </h2>
      {schools.map((school) => (
        <div key={school.code} className="flex items-center gap-3 py-1 text-[0.9375rem]" data-school={school.code}>
          <span className="w-[46%] shrink-0 leading-tight">{school.title}</span>
          <span className="flex min-w-0 flex-1 items-center gap-2">
            <span
              className={`h-3 border border-ink ${school.highest ? "bg-ink" : "bg-sunk"}`}
              style={{ width: `${(school.value / most) * 60}%` }}
            />
            <span className="font-cond text-[1.0625rem] font-semibold">{mass(school.value)}</span>
            {school.highest && <span className="text-[0.8125rem] text-soft">highest</span>}
          </span>
        </div>
      ))}
    </section>
  );
}
