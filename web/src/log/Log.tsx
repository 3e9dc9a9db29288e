import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Kept } from "../adjust/Kept";
import { api } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Boundary } from "../app/Boundary";
import { Button } from "../ui/controls";
import { NextStep } from "../ui/NextStep";
import { Compared } from "./Compared";
import { Line } from "./Line";
import { Multiples } from "./Multiples";
import { GloveBox, Papers } from "./Papers";
import { DueNow, Reminders } from "./Reminders";

/** The record: every weigh-in in a line, every load over time, two to four of them compared, papers to take along. */
export function LogPlace() {
  const { sheet } = useDesk();
  const [words, setWords] = useState("");
  const [chosen, setChosen] = useState<number[]>([]);
  const [others, setOthers] = useState<string[]>([]);
  const found = useInfiniteQuery({
    queryKey: ["log", sheet.id, words],
    queryFn: ({ pageParam }) => api.log(sheet.id, words, pageParam),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (page) => (page.more ? page.entries.at(-1)?.number : undefined),
    placeholderData: keepPreviousData,
  });
  const fees = useQuery({ queryKey: ["log", sheet.id, { fees: true }], queryFn: () => api.fees(sheet.id) });
  const queries = useQueryClient();
  // not part of the key: all pages that are shown are asked for again, and stay where they are meanwhile
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new answer is what calls for it
  useEffect(() => {
    void queries.invalidateQueries({ queryKey: ["log", sheet.id] });
  }, [queries, sheet.id, sheet.saved_at]);
  if (found.error && !found.data) return <p className="p-6 font-semibold">{found.error.message}</p>;
  const pages = found.data?.pages ?? [];
  const first = pages[0];
  if (!first) return null;
  const entries = pages.flatMap((page) => page.entries);
  const toggle = (number: number) =>
    setChosen(chosen.includes(number) ? chosen.filter((each) => each !== number) : [...chosen, number].slice(-4));
  return (
    <div className="mx-auto max-w-[87.5rem] px-4 py-4 lg:px-6">
      <div className="flex flex-wrap items-start justify-between gap-x-6 gap-y-2">
        <DueNow />
        <GloveBox />
      </div>
      {first.count === 0 ? (
        <div className="mt-6">
          <p className="text-[1rem]">
            Nothing weighed yet. Each weigh-in is listed here with what changed since the last.
          </p>
          <NextStep to={`/rigs/${sheet.id}/weigh`}>Start the first weigh-in</NextStep>
        </div>
      ) : (
        <>
          <section aria-label="Weigh-ins" className="mt-3">
            <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2 border-b border-ink pb-1">
              <h2 className="font-cond text-[1.375rem] font-semibold">
                {first.count === 1 ? "One weigh-in" : `${first.count.toLocaleString("en-US")} weigh-ins`}
              </h2>
              <input
                type="search"
                aria-label="Find weigh-ins"
                placeholder="Find a place, a tag, a note, 2026-05…"
                className="h-10 w-full border border-ink bg-card px-2 text-[1rem] md:w-80"
                value={words}
                onChange={(event) => setWords(event.currentTarget.value)}
              />
            </div>
            <div className="flex flex-wrap items-baseline justify-between gap-x-6">
              <p className="py-1 text-[0.875rem] text-soft">
                {(fees.data ?? []).length > 0 && <>Spent on weighing: {fees.data?.join(", ")}. </>}
                Tick two to four to compare them. A change is named only where it is more than the scales' ±.
              </p>
              <OtherRigs
                others={others}
                onChange={(wanted) => {
                  setOthers(wanted);
                  if (chosen.length === 0 && wanted.length > 0 && entries[0]) setChosen([entries[0].number]);
                }}
              />
            </div>
            {entries.map((entry) => (
              <Line
                key={entry.number}
                entry={entry}
                chosen={chosen.includes(entry.number)}
                onChoose={() => toggle(entry.number)}
              />
            ))}
            {entries.length === 0 && <p className="py-3 text-[1rem]">Nothing has all of “{words.trim()}” in it.</p>}
            {found.hasNextPage && (
              <Button className="mt-3" disabled={found.isFetching} onClick={() => void found.fetchNextPage()}>
                Show earlier ones
              </Button>
            )}
          </section>
          {chosen.length > 0 && chosen.length + others.length > 1 && (
            <Compared numbers={[...chosen].sort((a, b) => a - b)} others={others} />
          )}
          {first.count > 1 && (
            <Boundary part="The charts">
              <Multiples />
            </Boundary>
          )}
        </>
      )}
      <Kept kept={first.kept} />
      <Reminders />
      <Papers />
    </div>
  );
}

/** The last weigh-in of another rig beside this one's: the same truck and trailer on another hitch. */
function OtherRigs({ others, onChange }: { others: string[]; onChange: (others: string[]) => void }) {
  const { sheet } = useDesk();
  const rigs = useQuery({ queryKey: ["rigs"], queryFn: api.rigs });
  const weighed = (rigs.data ?? []).filter((each) => each.id !== sheet.id && each.weigh_ins > 0);
  if (weighed.length === 0) return null;
  return (
    <div className="mt-1 flex flex-wrap items-center gap-2 text-[0.875rem]">
      {weighed
        .filter((each) => others.includes(each.id))
        .map((each) => (
          <button
            key={each.id}
            type="button"
            aria-label={`Leave out ${each.name}`}
            className="border border-ink px-1.5 font-cond text-[0.9375rem]"
            onClick={() => onChange(others.filter((other) => other !== each.id))}
          >
            {each.name || "unnamed rig"} ✕
          </button>
        ))}
      <select
        aria-label="Compare with another rig"
        className="h-9 border border-edge bg-card px-1"
        value=""
        onChange={(event) => onChange([...others, event.currentTarget.value].slice(-3))}
      >
        <option value="">and another rig's last…</option>
        {weighed
          .filter((each) => !others.includes(each.id))
          .map((each) => (
            <option key={each.id} value={each.id}>
              {each.name || "unnamed rig"}
            </option>
          ))}
      </select>
    </div>
  );
}
