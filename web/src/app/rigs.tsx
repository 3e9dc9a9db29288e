import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useId, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { api, type Kind, type MassUnit, RequestFailed } from "../api/client";
import { Button, Choice, Picks } from "../ui/controls";

export const KINDS: readonly (readonly [Kind, string])[] = [
  ["conventional", "trailer on a ball"],
  ["fifth_wheel", "fifth wheel"],
  ["gooseneck", "gooseneck"],
  ["motorhome", "motorhome"],
  ["slide_in", "slide-in camper"],
];

/** Asks the little that a new rig needs. */
export function NewRigForm({ onDone }: { onDone?: () => void }) {
  const [name, setName] = useState("");
  const [kind, setKind] = useState<Kind>("conventional");
  const [unit, setUnit] = useState<MassUnit>("lb");
  const [problem, setProblem] = useState<string | null>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const id = useId();
  const start = (event: FormEvent) => {
    event.preventDefault();
    api.start(name.trim(), kind, unit).then(
      ({ id: rig }) => {
        void queries.invalidateQueries({ queryKey: ["rigs"] });
        onDone?.();
        navigate(`/rigs/${rig}/plates`);
      },
      (error: Error) => setProblem(error.message),
    );
  };
  return (
    <form onSubmit={start} className="space-y-4">
      <div>
        <label htmlFor={id} className="mb-1 block text-[15px]">
          What you call it, for instance the truck's nickname and the trailer's
        </label>
        <input
          id={id}
          value={name}
          maxLength={200}
          onChange={(event) => setName(event.currentTarget.value)}
          className="h-11 w-full border-b-2 border-rule bg-card px-2 text-[17px] outline-none focus:border-ink"
        />
      </div>
      <Picks label="Kind of rig" value={kind} options={KINDS} onChange={setKind} />
      <div className="flex items-center gap-3">
        <span className="text-[15px]">Ratings in</span>
        <Choice
          label="Unit of the ratings"
          value={unit}
          onChange={setUnit}
          options={[
            ["lb", "lb"],
            ["kg", "kg"],
          ]}
        />
      </div>
      {problem && <p className="border-l-4 border-ink pl-2 font-semibold">{problem}</p>}
      <Button strong type="submit">
        Start this rig
      </Button>
    </form>
  );
}

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
