import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type DriveNotes } from "../api/client";
import { useDesk } from "../api/useSheet";
import { Button } from "../ui/controls";
import { Refused, useAttempt } from "../ui/useAttempt";

const ASKED = [
  ["sway", "Sway", "none, or when and how fast"],
  ["squat", "Level", "squat at the rear, nose up or down"],
  ["braking", "Braking", "straight, hard enough, even"],
  ["mirrors", "Mirrors", "what they did not show"],
  ["wind", "Wind and road", ""],
  ["distance", "Distance", "with its unit"],
  ["fuel", "Fuel used", "with its unit"],
  ["note", "Anything else", ""],
] as const;

/** How it drove with what was weighed, by the number of the weigh-in. */
export function useDrives() {
  const { sheet } = useDesk();
  const drives = useQuery({ queryKey: ["drives", sheet.id], queryFn: () => api.drives(sheet.id) });
  return drives.data ?? {};
}

/** The notes in one line; empty without any. */
export function driveInWords(notes: DriveNotes | undefined): string {
  return ASKED.flatMap(([key, label]) => (notes?.[key] ? [`${label.toLowerCase()}: ${notes[key]}`] : [])).join(" · ");
}

/** After the drive: a word for each thing that a scale does not show. */
export function Drive({ number, weighIn, onDone }: { number: number; weighIn: string; onDone: () => void }) {
  const { sheet } = useDesk();
  const queries = useQueryClient();
  const kept = useDrives()[number];
  const [notes, setNotes] = useState<DriveNotes>(kept ?? {});
  const { problem, attempt } = useAttempt();
  const keep = () =>
    attempt(api.keepDrive(sheet.id, weighIn, notes), async () => {
      await queries.invalidateQueries({ queryKey: ["drives", sheet.id] });
      onDone();
    });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      {ASKED.map(([key, label, hint]) => (
        <label key={key} className="block py-1.5 text-[0.9375rem]">
          {label} {hint && <span className="text-[0.8125rem] text-soft">({hint})</span>}
          <input
            className="mt-0.5 block h-11 w-full border-b-2 border-edge bg-transparent px-1 text-[1.0625rem] outline-none focus:border-ink"
            value={notes[key] ?? ""}
            maxLength={key === "distance" || key === "fuel" ? 40 : 500}
            onChange={(event) => setNotes({ ...notes, [key]: event.currentTarget.value })}
          />
        </label>
      ))}
      <Refused problem={problem} />
      <Button strong type="submit" className="mt-3 min-h-12 w-full">
        Keep it
      </Button>
    </form>
  );
}
