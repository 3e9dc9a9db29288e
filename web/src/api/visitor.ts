import { useQuery } from "@tanstack/react-query";
import { api } from "./client";

const OWNER = { here: true, name: null, viewing: false };

/** Who this page is to Noxel: the machine itself, or a paired device, which may be there to look only. */
export function useVisitor() {
  return useQuery({ queryKey: ["me"], queryFn: api.me, staleTime: Number.POSITIVE_INFINITY }).data ?? OWNER;
}
