import { useQuery } from "@tanstack/react-query";
import { api, type TermSet } from "../api/client";

let last: TermSet = "north_america";
/** The terms of the rig that was on the desk last: what speaks of no rig speaks in them. */
export const lastTerms = () => last;
export const keepTerms = (terms: TermSet) => {
  last = terms;
};

/** Says a text of the page, which speaks North American, in a region's own terms. */
export function useSay(terms: TermSet) {
  const words = useQuery({ queryKey: ["words"], queryFn: api.words, staleTime: Number.POSITIVE_INFINITY });
  const spoken = words.data?.spoken[terms];
  if (!spoken) return (text: string) => text;
  const known = new RegExp(`\\b(${Object.keys(spoken).join("|")})\\b`, "g");
  return (text: string) => text.replace(known, (word) => spoken[word] ?? word);
}
