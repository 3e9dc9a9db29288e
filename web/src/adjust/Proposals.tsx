import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type Step } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button } from "../ui/controls";

/** The easiest fixes, looked for as soon as something is wrong; from other steps only when asked for. */
export function Proposals(props: { steps: Step[]; needed: boolean; onTake: (steps: Step[]) => void }) {
  const { steps, needed, onTake } = props;
  const { sheet, number } = useDesk();
  const queries = useQueryClient();
  const queryKey = ["proposals", sheet.id, sheet.saved_at, number ?? 0, steps];
  const answer = useQuery({
    queryKey,
    queryFn: ({ signal }) => api.propose(sheet.id, steps, number, signal),
    enabled: needed && steps.length === 0,
    placeholderData: (before) => before,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const found = answer.data;
  if (!needed && !found) return null;
  return (
    <section aria-label="Proposals" className="mt-5">
      <h2 className="border-b border-ink font-cond text-[1.25rem] font-semibold">Easiest fixes</h2>
      {answer.isFetching ? (
        <p className="mt-2 flex gap-3 text-[0.9375rem]">
          <span role="status">Looking for the easiest fix…</span>
          <button type="button" className="underline" onClick={() => void queries.cancelQueries({ queryKey })}>
            stop looking
          </button>
        </p>
      ) : (
        (steps.length > 0 || !found) && (
          <Button className="mt-2" onClick={() => void answer.refetch()}>
            {steps.length > 0 ? "Look from these steps on" : "Find it"}
          </Button>
        )
      )}
      {answer.error && <p className="mt-2 border-l-4 border-ink pl-2 font-semibold">{answer.error.message}</p>}
      {found && <p className="mt-2 text-[0.9375rem]">{found.says}</p>}
      {found?.proposals.map((each, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: proposals are distinguished by their rank
        <article key={index} data-proposal={index} className="mt-2 border border-edge bg-card p-3">
          <p className="text-[1rem] leading-snug font-semibold">{each.says.join(". ")}.</p>
          <p className="mt-1 text-[0.875rem] leading-snug text-soft">{each.summary}</p>
          {each.rules.map((rule) => (
            <p key={rule} className="mt-1 border-l-4 border-ochre pl-2 text-[0.875rem] leading-snug">
              {rule}
            </p>
          ))}
          <Button className="mt-2" onClick={() => onTake(each.steps)}>
            Try this one
          </Button>
        </article>
      ))}
      {found?.unmet.map((each) => (
        <p
          key={each.check}
          data-unmet={each.check}
          className="mt-2 border-l-4 border-vermilion pl-2 text-[0.9375rem] leading-snug"
        >
          {each.says}
        </p>
      ))}
      {found?.proof.map((line) => (
        <p key={line} className="mt-1 text-[0.875rem] leading-snug text-soft">
          {line}
        </p>
      ))}
    </section>
  );
}
