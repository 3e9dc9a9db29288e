import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { api, type ScaleKind, type VisitState } from "../api/client";

const FRESH: VisitState = {
  scale: "truck_scale",
  uncouple: true,
  at: 0,
  ticked: [],
  first_price: "",
  again_price: "",
  hours: 24,
  ticket_at: null,
  noted_at: 0,
};

/**
 * The visit under way: kept in this browser at every step, so that it needs no network, and on the computer when it
 * answers, so that another device can go on. The newer of the two counts. `null` until it is begun.
 */
export function useVisit(rig: string) {
  const key = `noxel.visit-state.${rig}`;
  const [state, setState] = useState<VisitState | null>(
    () => JSON.parse(localStorage.getItem(key) ?? "null") as VisitState | null,
  );
  const scale: ScaleKind = state?.scale ?? "truck_scale";
  const uncouple = state?.uncouple ?? true;
  const visit = useQuery({ queryKey: ["visit", rig, scale, uncouple], queryFn: () => api.visit(rig, scale, uncouple) });
  const there = visit.data?.state ?? null;
  useEffect(() => {
    if (there && (there.noted_at ?? 0) > (state?.noted_at ?? 0)) setState(there);
  }, [there, state]);
  const keep = useCallback(
    (change: Partial<VisitState>) => {
      setState((now) => {
        const next = { ...(now ?? FRESH), ...change, noted_at: Date.now() };
        localStorage.setItem(key, JSON.stringify(next));
        api.keepVisit(rig, next).catch(() => {}); // it stands in this browser; the next step sends it again
        return next;
      });
    },
    [key, rig],
  );
  const end = useCallback(() => {
    localStorage.removeItem(key);
    setState(null);
    api.endVisit(rig).catch(() => {});
  }, [key, rig]);
  return { state, steps: visit.data?.steps ?? [], problem: visit.error?.message ?? null, keep, end };
}
