import { useDesk } from "../api/useSheet";
import { capital } from "../format";

/** The word for a key in the rig's term set, as the first word of a line. */
export function useTerms() {
  const { evaluation } = useDesk();
  return (key: string) => capital(evaluation.terms[key] ?? key);
}
