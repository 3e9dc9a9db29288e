import { useDesk } from "../api/useSheet";

/** What a thing is called in the rig's set of terms, as the first word of a line. */
export function useTerms() {
  const { evaluation } = useDesk();
  return (key: string) => {
    const name = evaluation.terms[key] ?? key;
    return name.charAt(0).toUpperCase() + name.slice(1);
  };
}
