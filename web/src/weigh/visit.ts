const SAME_VISIT_MS = 12 * 3_600_000;

/** The visit that a ticket jotted down now belongs to: the last one on this device, unless that was long ago. */
export function visitOf(rig: string): string {
  const key = `noxel.visit.${rig}`;
  const last = JSON.parse(localStorage.getItem(key) ?? "null") as { key: string; at: number } | null;
  const same = last && Math.abs(Date.now() - last.at) < SAME_VISIT_MS;
  const visit = { key: same ? last.key : crypto.randomUUID(), at: Date.now() };
  localStorage.setItem(key, JSON.stringify(visit));
  return visit.key;
}

/** The next ticket begins a weigh-in of its own. */
export const endVisit = (rig: string) => localStorage.removeItem(`noxel.visit.${rig}`);
