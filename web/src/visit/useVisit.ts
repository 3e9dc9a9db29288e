import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useState } from "react";
import { api, type ScaleKind, type VisitState } from "../api/client";
import { onReach, reachable } from "../api/reach";

const FRESH: VisitState = {
  scale: "truck_scale",
  uncouple: true,
  at: 0,
  ticked: [],
  first_price: "",
  again_price: "",
  hours: 24,
  ticket_at: null,
};
type Kept = { state: VisitState /** Whether the computer has it. */; sent: boolean };

const read = (key: string) => JSON.parse(localStorage.getItem(key) ?? "null") as Kept | null;
/** What is being sent, one after the other: an earlier step never comes in over a later one. */
let sending: Promise<void> = Promise.resolve();

function send(rig: string, key: string) {
  sending = sending.then(async () => {
    const kept = read(key);
    if (!kept || kept.sent) return;
    try {
      await api.keepVisit(rig, kept.state);
    } catch {
      return; // it stands in this browser, and is sent again
    }
    const now = read(key);
    if (now && JSON.stringify(now.state) === JSON.stringify(kept.state))
      localStorage.setItem(key, JSON.stringify({ ...now, sent: true }));
  });
  return sending;
}

/**
 * The visit under way: kept in this browser at every step, so that it needs no network, and on the computer when it
 * answers, so that another device can go on. What was not sent yet goes before what the computer has. `null` until it is
 * begun.
 */
export function useVisit(rig: string) {
  const key = `noxel.visit-state.${rig}`;
  const queries = useQueryClient();
  const [state, setState] = useState<VisitState | null>(() => read(key)?.state ?? null);
  const scale: ScaleKind = state?.scale ?? "truck_scale";
  const uncouple = state?.uncouple ?? true;
  const visit = useQuery({
    queryKey: ["visit", rig, scale, uncouple],
    queryFn: async () => {
      const before = localStorage.getItem(key);
      return { ...(await api.visit(rig, scale, uncouple)), before };
    },
  });
  const { data, refetch } = visit;
  useEffect(() => {
    const kept = read(key);
    if (!data || (kept && !kept.sent)) return;
    if (data.before !== localStorage.getItem(key)) return; // asked for before the last step was kept here
    // another device may have gone on, or ended it
    if (data.state) localStorage.setItem(key, JSON.stringify({ state: data.state, sent: true }));
    else localStorage.removeItem(key);
    setState(data.state);
  }, [data, key]);
  useEffect(() => {
    const ended = onReach(() => reachable() && void send(rig, key));
    void send(rig, key);
    return () => void ended();
  }, [rig, key]);
  const keep = useCallback(
    (change: Partial<VisitState>) => {
      const next = { ...(read(key)?.state ?? FRESH), ...change };
      localStorage.setItem(key, JSON.stringify({ state: next, sent: false }));
      setState(next);
      void send(rig, key).then(() => refetch());
    },
    [key, rig, refetch],
  );
  const end = useCallback(() => {
    localStorage.removeItem(key);
    setState(null);
    sending = sending
      .then(() => api.endVisit(rig).catch(() => {}))
      .then(() => queries.removeQueries({ queryKey: ["visit", rig] }));
  }, [key, rig, queries]);
  return { state, steps: data?.steps ?? [], problem: visit.error?.message ?? null, keep, end };
}
