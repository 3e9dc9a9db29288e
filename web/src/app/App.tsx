import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type ComponentType, lazy, type ReactNode, Suspense, useEffect, useState } from "react";
import { Link, Navigate, Route, Routes, useNavigate, useParams, useSearchParams } from "react-router";
import { api, download, RequestFailed } from "../api/client";
import { DeskProvider } from "../api/useSheet";
import { Margins } from "../margins/Margins";
import { Start as StartPage } from "../start/Start";
import { Button } from "../ui/controls";
import { LongStrip } from "../ui/LongStrip";
import { Refused, useAttempt } from "../ui/useAttempt";
import { Boundary } from "./Boundary";
import { PATH, PLACES, type Place } from "./places";
import { Shell } from "./Shell";

const LOADS: (() => Promise<unknown>)[] = [];

/** A part of the page that comes when it is asked for, or when there is nothing else to do. */
function later<Name extends string>(name: Name, load: () => Promise<{ [Key in Name]: ComponentType }>) {
  LOADS.push(load);
  return lazy(() => load().then((made) => ({ default: made[name] })));
}
const Path = later("Path", () => import("../start/Path"));
const Plates = later("Plates", () => import("../plates/Plates"));
const Weigh = later("Weigh", () => import("../weigh/Weigh"));
const Pack = later("Pack", () => import("../pack/Pack"));
const Adjust = later("Adjust", () => import("../adjust/Adjust"));
const Match = later("Match", () => import("../match/Match"));
const LogPlace = later("LogPlace", () => import("../log/Log"));
const Garage = later("Garage", () => import("../garage/Garage"));
const Companion = later("Companion", () => import("../visit/Companion"));
const Help = later("Help", () => import("../help/Help"));
const Practice = later("Practice", () => import("../practice/Practice"));
const Phones = later("Phones", () => import("../phones/Phones"));

async function loadTheRest() {
  for (const load of LOADS) await load().catch(() => undefined);
}

export function App() {
  useEffect(() => {
    const idle = window.requestIdleCallback ?? ((run: () => void) => window.setTimeout(run, 1500));
    idle(() => void loadTheRest());
  }, []);
  return (
    <Suspense>
      <Routes>
        <Route path="/" element={<Start />} />
        <Route path="/start" element={<StartPage first={false} />} />
        <Route path="/help" element={<Help />} />
        <Route path="/help/:page" element={<Help />} />
        <Route path="/practice/*" element={<Practice />} />
        <Route path="/phones" element={<Phones />} />
        <Route path="/garage" element={<Garage />} />
        <Route path="/rigs/:id/:place" element={<Desk />} />
        <Route path="*" element={<Navigate to="/" replace />} />
      </Routes>
      <LongStrip />
    </Suspense>
  );
}

function Start() {
  const rigs = useQuery({ queryKey: ["rigs"], queryFn: api.rigs });
  // a list that is known stays, also while Noxel does not answer: what was begun on this page is kept
  if (rigs.error && !rigs.data) return <Plain title="Noxel does not answer">{rigs.error.message}</Plain>;
  const first = rigs.data?.find((each) => !each.damaged);
  if (first) return <Navigate to={`/rigs/${first.id}/margins`} replace />;
  return rigs.data ? <StartPage first /> : null;
}

function Desk() {
  const { id = "", place } = useParams();
  const [search, setSearch] = useSearchParams();
  const visiting = place === "visit";
  const known = [...PLACES, PATH].find((each) => each.id === place);
  const wanted = Number(search.get("weigh-in")) || undefined;
  const look = (weighIn: number | undefined) =>
    setSearch((now) => {
      if (weighIn) now.set("weigh-in", String(weighIn));
      else now.delete("weigh-in");
      return now;
    });
  if (!known && !visiting) return <Navigate to={`/rigs/${id}/margins`} replace />;
  return (
    <DeskProvider
      key={id}
      id={id}
      weighIn={wanted}
      look={look}
      waiting={null}
      failed={(error) => <CannotBeShown id={id} error={error} />}
    >
      {known ? (
        <Shell place={known.id}>
          <Boundary key={known.id} part={known.name}>
            <Suspense>{placeOf(known.id)}</Suspense>
          </Boundary>
        </Shell>
      ) : (
        <Suspense>
          <Companion />
        </Suspense>
      )}
    </DeskProvider>
  );
}

/** A rig that does not open: why, what can be saved of it, and the way to the others. */
function CannotBeShown({ id, error }: { id: string; error: Error }) {
  const rigs = useQuery({ queryKey: ["rigs"], queryFn: api.rigs });
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [asked, setAsked] = useState(false);
  const { problem, attempt } = useAttempt();
  const damaged = error instanceof RequestFailed && error.problem?.code === "damaged";
  const others = (rigs.data ?? []).filter((each) => each.id !== id && !each.damaged);
  const remove = () =>
    attempt(api.remove(id), async () => {
      await queries.invalidateQueries({ queryKey: ["rigs"] });
      navigate("/");
    });
  return (
    <main className="mx-auto max-w-2xl p-6">
      <h1 className="font-cond text-[1.875rem] font-semibold">This rig cannot be shown</h1>
      <p className="mt-2 text-[1.0625rem] leading-snug">{error.message}</p>
      {damaged && (
        <div className="mt-4 flex flex-wrap gap-3">
          <Button onClick={() => void download(`/rigs/${id}/raw`, "exporting")}>Export it as it is</Button>
          <Button onClick={() => (asked ? void remove() : setAsked(true))}>
            {asked ? "Delete it (removes it from the list)" : "Delete it"}
          </Button>
        </div>
      )}
      <Refused problem={problem} />
      {others.length > 0 && (
        <>
          <h2 className="mt-6 font-cond text-[1.375rem] font-semibold">Your other rigs are not affected</h2>
          <ul>
            {others.map((each) => (
              <li key={each.id}>
                <Link className="inline-block py-2 text-[1.0625rem] underline" to={`/rigs/${each.id}/margins`}>
                  {each.name || "a rig"}
                </Link>
              </li>
            ))}
          </ul>
        </>
      )}
    </main>
  );
}

function placeOf(place: Place | "path"): ReactNode {
  switch (place) {
    case "path":
      return <Path />;
    case "plates":
      return <Plates />;
    case "pack":
      return <Pack />;
    case "weigh":
      return <Weigh />;
    case "margins":
      return <Margins />;
    case "adjust":
      return <Adjust />;
    case "log":
      return <LogPlace />;
    case "match":
      return <Match />;
  }
}

function Plain({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="mx-auto max-w-xl p-8">
      <h1 className="font-cond text-[1.875rem] font-semibold">{title}</h1>
      <p className="mt-2 text-[1.0625rem]">{children}</p>
    </main>
  );
}
