import { queue } from "../api/queue";

/** What a photograph shows, and the weigh-in or the visit that it belongs to. */
export type Shown = { about: string; label: string; weighIn?: string | undefined; visit?: string | undefined };

/** Keeps a chosen photograph: here until the computer has it. Its key, or null where none was chosen. */
export function keepPhoto(rig: string, shown: Shown, input: HTMLInputElement): string | null {
  const file = input.files?.[0];
  input.value = "";
  if (!file) return null;
  const { about, label, weighIn, visit } = shown;
  const key = crypto.randomUUID();
  const photo = {
    kind: "photo",
    about,
    weighIn: visit ? null : (weighIn ?? null),
    visit: visit ?? null,
    file,
  } as const;
  void queue.add(rig, `photograph of ${label.toLowerCase()}`, photo, key);
  return key;
}
