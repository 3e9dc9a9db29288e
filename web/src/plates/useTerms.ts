import { useDesk } from "../api/useSheet";

/** The word for a key in the rig's term set, as the first word of a line. */
export function useTerms() {
  const { evaluation } = useDesk();
  return (key: string) => {
    const name = evaluation.terms[key] ?? key;
    return name.charAt(0).toUpperCase() + name.slice(1);
  };
}
