import { useQuery } from "@tanstack/react-query";
import { createContext, type ReactNode, useContext, useState } from "react";
import { api } from "../api/client";
import { useDeskIfAny } from "../api/useSheet";
import { HowTheyFit } from "../drawing/HowTheyFit";
import { Slip } from "./Dialog";

const Look = createContext<(term: string) => void>(() => undefined);

const SETS = [
  ["north_america", "North America"],
  ["australia", "Australia, NZ"],
  ["europe", "Europe, UK"],
] as const;

/** Opens the glossary at a term from anywhere below. */
export const useGlossary = () => useContext(Look);

export function GlossaryProvider({ children }: { children: ReactNode }) {
  const [term, setTerm] = useState<string | null>(null);
  return (
    <Look.Provider value={setTerm}>
      {children}
      <Slip
        open={term !== null}
        onOpenChange={() => setTerm(null)}
        title="How the ratings fit together"
        lead="Each bracket is a rating; it spans what counts in it."
        wide
        quiet
      >
        {term !== null && <Meanings term={term} />}
      </Slip>
    </Look.Provider>
  );
}

function Meanings({ term }: { term: string }) {
  const desk = useDeskIfAny(); // the first page has no rig, so it shows every term
  const towing = desk?.evaluation.towing ?? true;
  const words = useQuery({ queryKey: ["words"], queryFn: api.words, staleTime: Number.POSITIVE_INFINITY });
  const [picked, setPicked] = useState(term);
  const here = desk?.rig.terms ?? "north_america";
  const pin = desk?.rig.kind === "fifth_wheel" || desk?.rig.kind === "gooseneck";
  const known = (words.data?.glossary ?? []).filter((each) => towing || !each.towing);
  const plain = (key: string) => known.find((each) => each.key === key)?.names[here] ?? key;
  const name = (key: string) => {
    if (pin && key === "tongue_weight") return plain("pin_weight");
    const shared = known.some((each) => each.key !== key && each.names[here] === plain(key));
    return shared && key.startsWith("trailer.") ? `trailer ${plain(key)}` : plain(key);
  };
  const first = known.find((each) => each.key === picked);
  return (
    <>
      {first && (
        <p className="border-l-4 border-spruce bg-sunk px-3 py-2 text-[1rem] leading-snug" data-meaning={picked}>
          <b className="mr-2 font-cond text-[1.1875rem]">{name(picked)}</b>
          {first.meaning}
          {first.on_labels && <span className="block text-[0.875rem]">On labels also: {first.on_labels}.</span>}
        </p>
      )}
      {towing && (
        <p className="mt-2 text-[0.9375rem] leading-snug text-soft">
          The load on the hitch is part of the vehicle's load and of the trailer's, and counts once in both together.
        </p>
      )}
      <HowTheyFit
        name={name}
        known={new Set(known.map((each) => each.key))}
        picked={picked}
        onPick={setPicked}
        towing={towing}
      />
      <dl className="mt-3 border-t border-ink">
        {known.map((each) => (
          <div
            key={each.key}
            className={`border-b border-rule px-2 py-2 ${each.key === picked ? "border-l-4 border-l-spruce" : ""}`}
          >
            <dt className="font-cond text-[1.125rem] font-semibold">{name(each.key)}</dt>
            <dd className="text-[0.9375rem] leading-snug">
              {each.meaning}
              {each.on_labels && <span className="block text-[0.8125rem] text-soft">On labels: {each.on_labels}</span>}
              <span className="block text-[0.8125rem] text-soft">
                {SETS.filter(([set]) => set !== here && each.names[set] !== plain(each.key))
                  .map(([set, place]) => `${place}: ${each.names[set]}`)
                  .join(" · ")}
              </span>
            </dd>
          </div>
        ))}
      </dl>
    </>
  );
}

/** A small mark beside a label that opens the glossary at its term. */
export function TermMark({ term, name }: { term: string; name: string }) {
  const look = useGlossary();
  return (
    <button
      type="button"
      data-inline
      data-mark
      aria-label={`What ${name} means`}
      title="What it means, and how the ratings fit together"
      onClick={() => look(term)}
      className="ml-1.5 inline-flex h-5 w-6 items-center justify-center border border-dotted border-soft align-text-bottom font-cond text-[0.875rem] leading-none text-soft hover:border-solid hover:border-ink hover:text-ink"
    >
      ?
    </button>
  );
}
