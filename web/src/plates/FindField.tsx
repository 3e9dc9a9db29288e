import { useContext, useEffect, useState } from "react";
import { Link, useLocation } from "react-router";
import { useDesk } from "../api/useSheet";
import { UnfoldContext, unfold } from "./Plate";

const MOST = 8;
type Found = { id: string; label: string; part: string };

/** What the verdict still needs, each a way to its field. */
export function Needed() {
  const { evaluation } = useDesk();
  const { search } = useLocation();
  const wanted = (evaluation.headline.unknown ?? []).filter((each) => each.path);
  if (wanted.length === 0) return null;
  return (
    <p className="mt-2 border-l-4 border-dotted border-spruce pl-3 text-[1rem] leading-snug" data-part="needed">
      The answer still needs:{" "}
      {wanted.map((each, index) => (
        <span key={each.label}>
          {index > 0 && ", "}
          <Link to={{ search, hash: each.path ?? "" }} className="underline underline-offset-2">
            {each.label}
          </Link>
        </span>
      ))}
      .
    </p>
  );
}

/** Find a field by typing some of its name. */
export function FindField({ onAsk }: { onAsk: (asking: boolean) => void }) {
  const [words, setWords] = useState("");
  const [found, setFound] = useState<Found[]>([]);
  const asked = words.trim().toLowerCase();
  useEffect(() => onAsk(asked !== ""), [asked, onAsk]);
  const unfolded = useContext(UnfoldContext);
  useEffect(() => setFound(asked && unfolded ? fieldsNamed(asked.split(/\s+/)) : []), [asked, unfolded]);
  const go = async (id: string) => {
    const field = document.getElementById(id);
    if (!field) return;
    await unfold(field); // what is in it stays from then on
    field.scrollIntoView({ block: "center" });
    field.focus({ preventScroll: true });
    setWords("");
  };
  return (
    <div className="mt-3 max-w-xl">
      <input
        type="search"
        aria-label="Find a field"
        placeholder="Find a field: “gawr”, “pressure”, “ball height”…"
        className="h-11 w-full border border-edge bg-card px-2 text-[1rem]"
        value={words}
        onChange={(event) => setWords(event.currentTarget.value)}
        onKeyDown={(event) => {
          const first = found[0] ?? fieldsNamed(asked.split(/\s+/))[0]; // Enter may come before the list
          if (event.key === "Enter" && first) void go(first.id);
        }}
      />
      <p role="status" className="sr-only">
        {asked ? `${found.length} fields found` : ""}
      </p>
      {asked && (
        <ul className="border border-t-0 border-ink bg-card">
          {found.map((each) => (
            <li key={each.id}>
              <button
                type="button"
                className="flex min-h-11 w-full items-center justify-between gap-4 px-3 text-left text-[1rem] hover:bg-sunk"
                onClick={() => void go(each.id)}
              >
                {each.label}
                <span className="text-[0.875rem] text-soft">{each.part}</span>
              </button>
            </li>
          ))}
          {found.length === 0 && <li className="px-3 py-2 text-[0.9375rem] text-soft">No field is called that.</li>}
        </ul>
      )}
    </div>
  );
}

/** The fields of this page whose label, with the title it stands under, has all the words. */
function fieldsNamed(words: readonly string[]): Found[] {
  const found: Found[] = [];
  for (const field of document.querySelectorAll<HTMLInputElement>("main input[data-path][id]")) {
    const label = document.querySelector(`label[for="${CSS.escape(field.id)}"]`)?.textContent ?? "";
    const part = field.closest("section")?.getAttribute("aria-label") ?? "";
    const fold = field.closest("details")?.querySelector("summary")?.textContent ?? "";
    const all = `${label} ${fold} ${part}`.toLowerCase();
    if (words.every((word) => all.includes(word))) found.push({ id: field.id, label, part });
    if (found.length === MOST) break;
  }
  return found;
}
