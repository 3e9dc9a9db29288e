import { useQuery } from "@tanstack/react-query";
import { lazy, type ReactNode, Suspense } from "react";
import { Navigate, Route, Routes, useParams, useSearchParams } from "react-router";
import { api } from "../api/client";
import { DeskProvider } from "../api/useSheet";
import { Margins } from "../margins/Margins";
import { Pack } from "../pack/Pack";
import { Plates } from "../plates/Plates";
import { LongStrip } from "../ui/LongStrip";
import { Weigh } from "../weigh/Weigh";
import { PLACES, type Place } from "./places";
import { Shell } from "./Shell";
import { Welcome } from "./Welcome";

// what is not met on the first page comes when it is asked for
const Garage = lazy(() => import("../garage/Garage").then((made) => ({ default: made.Garage })));
const Adjust = lazy(() => import("../adjust/Adjust").then((made) => ({ default: made.Adjust })));
const LogPlace = lazy(() => import("../log/Log").then((made) => ({ default: made.LogPlace })));
const Match = lazy(() => import("../match/Match").then((made) => ({ default: made.Match })));

export function App() {
  return (
    <Suspense>
      <Routes>
        <Route path="/" element={<Start />} />
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
  if (rigs.error) return <Plain title="Noxel does not answer">{rigs.error.message}</Plain>;
  const first = rigs.data?.[0];
  if (first) return <Navigate to={`/rigs/${first.id}/margins`} replace />;
  return rigs.data ? <Welcome /> : null;
}

function Desk() {
  const { id = "", place } = useParams();
  const [search, setSearch] = useSearchParams();
  const known = PLACES.find((each) => each.id === place);
  const wanted = Number(search.get("weigh-in")) || undefined;
  const look = (weighIn: number | undefined) => setSearch(weighIn ? { "weigh-in": String(weighIn) } : {});
  if (!known) return <Navigate to={`/rigs/${id}/margins`} replace />;
  return (
    <DeskProvider
      key={id}
      id={id}
      weighIn={wanted}
      look={look}
      waiting={null}
      failed={(error) => (
        <Plain title="This rig cannot be shown">
          {error.message}{" "}
          <a className="underline" href="/">
            To the rigs
          </a>
        </Plain>
      )}
    >
      <Shell place={known.id}>
        <Suspense>{placeOf(known.id)}</Suspense>
      </Shell>
    </DeskProvider>
  );
}

function placeOf(place: Place): ReactNode {
  switch (place) {
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
      <h1 className="font-cond text-[30px] font-semibold">{title}</h1>
      <p className="mt-2 text-[17px]">{children}</p>
    </main>
  );
}
