import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { useNavigate } from "react-router";
import { api, type Kind, RequestFailed } from "../api/client";

export const KINDS: readonly (readonly [Kind, string])[] = [
  ["conventional", "trailer on a ball"],
  ["fifth_wheel", "fifth wheel"],
  ["gooseneck", "gooseneck"],
  ["motorhome", "motorhome"],
  ["slide_in", "slide-in camper"],
];

/** The rigs that were deleted, and the way to bring one back. */
export function useDeleted() {
  const deleted = useQuery({ queryKey: ["rigs", "deleted"], queryFn: api.deleted });
  const navigate = useNavigate();
  const queries = useQueryClient();
  const bringBack = async (id: string) => {
    await api.bringBack(id);
    await queries.invalidateQueries({ queryKey: ["rigs"] });
    navigate(`/rigs/${id}/margins`);
  };
  return { deleted: deleted.data ?? [], bringBack };
}

/** Importing a rig file through the page: all of it or nothing, and plain words when it cannot be read. */
export function useImport() {
  const file = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const read = async (chosen: File) => {
    setProblem(null);
    try {
      const { id } = await api.importFile(chosen);
      await queries.invalidateQueries({ queryKey: ["rigs"] });
      navigate(`/rigs/${id}/margins`);
    } catch (error) {
      const failed = error instanceof RequestFailed ? error : new RequestFailed(String(error));
      const more = failed.problem?.errors?.slice(1, 6).map((each) => `${each.path}: ${each.message}`) ?? [];
      setProblem([`${chosen.name} was not imported. ${failed.message}`, ...more].join("\n"));
    }
  };
  return {
    open: () => file.current?.click(),
    problem,
    forget: () => setProblem(null),
    input: (
      <input
        ref={file}
        type="file"
        accept=".json,application/json"
        className="hidden"
        aria-label="Rig file"
        onChange={(event) => {
          const chosen = event.currentTarget.files?.[0];
          event.currentTarget.value = "";
          if (chosen) void read(chosen);
        }}
      />
    ),
  };
}
