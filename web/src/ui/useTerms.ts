import { useDesk } from "../api/useSheet";
import { capital } from "../format";

/** The word for a key in the rig's term set, inside a sentence. */
export function useWords() {
  const { evaluation } = useDesk();
  return (key: string) => evaluation.terms[key] ?? key;
}

/** The word for a key in the rig's term set, as the first word of a line. */
export function useTerms() {
  const word = useWords();
  return (key: string) => capital(word(key));
}
