import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, type Kind, type MassUnit, type TermSet } from "../api/client";
import { useDeleted, useImport } from "../app/rigs";
import { RigDrawing } from "../drawing/RigDrawing";
import { Choice } from "../ui/controls";
import { GlossaryProvider, useGlossary } from "../ui/Glossary";
import { Refused, useAttempt } from "../ui/useAttempt";
import { KindPicture } from "./KindPicture";

type Door = "tickets" | "going" | "tow";
const DOORS: readonly { door: Door; title: string; says: string }[] = [
  {
    door: "tickets",
    title: "I have weigh tickets",
    says: "Type them first; then only the labels that the answer needs.",
  },
  { door: "going", title: "I am going to weigh", says: "What to bring, which passes to drive, and why." },
  {
    door: "tow",
    title: "Can it tow that?",
    says: "Or how much it can tow at all. From labels and a brochure, a figure at a time: the answer grows.",
  },
];
const RIGS: readonly (readonly [Kind | "alone", string])[] = [
  ["conventional", "trailer on a ball"],
  ["fifth_wheel", "fifth wheel"],
  ["gooseneck", "gooseneck"],
  ["motorhome", "motorhome"],
  ["slide_in", "slide-in camper"],
  ["alone", "truck alone, so far"],
];
const LEADS: Record<Door, (rig: string) => string> = {
  tickets: (rig) => `/rigs/${rig}/path?door=tickets`,
  going: (rig) => `/rigs/${rig}/path?door=going`,
  tow: (rig) => `/rigs/${rig}/path?door=tow`,
};

/** The doors: by what somebody comes with. */
export function Start({ first }: { first: boolean }) {
  return (
    <GlossaryProvider>
      <Doors first={first} />
    </GlossaryProvider>
  );
}

function Doors({ first }: { first: boolean }) {
  const [door, setDoor] = useState<Door | null>(null);
  const { open, input, problem } = useImport();
  const { deleted, bringBack } = useDeleted();
  const look = useGlossary();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { problem: failed, attempt } = useAttempt();
  const example = () =>
    attempt(api.addExamples(), async ({ ids }) => {
      await queries.invalidateQueries();
      navigate(`/rigs/${ids.at(-1)}/margins`);
    });
  const card = "block w-full border border-ink bg-card px-4 py-3 text-left hover:bg-sunk";
  return (
    <div className="h-full overflow-y-auto">
      <main className="mx-auto max-w-2xl px-5 py-6 md:py-10">
        <p className="flex items-baseline justify-between font-cond text-[1.25rem] font-semibold tracking-[0.12em]">
          NOXEL
          {!first && (
            <Link to="/" className="text-[1rem] tracking-normal underline underline-offset-2">
              Back to your rigs
            </Link>
          )}
        </p>
        <h1 className="mt-4 font-cond text-[2rem] leading-tight font-semibold md:text-[2.375rem]">
          Is the loaded rig within its ratings?
        </h1>
        <Glance />
        <p className="mt-2 text-[1.0625rem] leading-snug">Half the figures are enough to start. What do you have?</p>
        <div className="mt-5 space-y-3">
          {DOORS.map((each) => (
            <div key={each.door}>
              <button
                type="button"
                aria-expanded={door === each.door}
                className={`${card} ${door === each.door ? "bg-sunk" : ""}`}
                onClick={() => setDoor(door === each.door ? null : each.door)}
              >
                <span className="block font-cond text-[1.375rem] leading-tight font-semibold">{each.title}</span>
                <span className="block text-[0.9375rem] leading-snug text-soft">{each.says}</span>
              </button>
              {door === each.door && <WhichRig door={each.door} />}
            </div>
          ))}
          <button type="button" className={card} onClick={() => void example()}>
            <span className="block font-cond text-[1.375rem] leading-tight font-semibold">Show me an example</span>
            <span className="block text-[0.9375rem] leading-snug text-soft">
              Four invented rigs, marked as examples. The rig menu throws them away again.
            </span>
          </button>
          <Link to="/practice" className={card}>
            <span className="block font-cond text-[1.375rem] leading-tight font-semibold">Teach me</span>
            <span className="block text-[0.9375rem] leading-snug text-soft">
              Lessons and a yard to practise in. It names the mistake behind a wrong figure.
            </span>
          </Link>
          <button type="button" className="min-h-11 underline underline-offset-2" onClick={() => look("gvwr")}>
            How the ratings fit together, in one picture
          </button>
        </div>
        <Refused problem={failed ?? problem} className="mt-3 whitespace-pre-line" />
        <p className="mt-6 border-t border-rule pt-3 text-[1rem]">
          <button type="button" className="py-2 underline underline-offset-2" onClick={open}>
            Import a rig file
          </button>
          {input}
        </p>
        {deleted.slice(0, 5).map((each) => (
          <p key={each.id}>
            <button type="button" className="py-2 underline underline-offset-2" onClick={() => void bringBack(each.id)}>
              Bring back {each.name || "an unnamed rig"}
            </button>
          </p>
        ))}
        <p className="mt-4 text-[0.875rem] leading-snug text-soft">
          Noxel compares figures that you enter with ratings that you enter. Being within them is no guarantee: the
          makers' manuals, local law and a qualified technician come first. No figure leaves this machine.
        </p>
      </main>
    </div>
  );
}

/** What comes out: an invented rig on its posts, and the one sentence that Noxel says of it. */
function Glance() {
  const { data } = useQuery({ queryKey: ["example"], queryFn: api.example, staleTime: Number.POSITIVE_INFINITY });
  return (
    <figure className="mt-3 min-h-[21rem] border-y border-rule short:hidden py-2" data-part="glance">
      {data && (
        <>
          <RigDrawing evaluation={data} short />
          <figcaption className="mt-1 text-[0.9375rem] leading-snug">
            <b className="text-vermilion">{data.headline.lead}</b> {data.headline.sentence}{" "}
            <span className="text-soft">An invented rig.</span>
          </figcaption>
        </>
      )}
    </figure>
  );
}

/** The little that is asked once: kind of rig, in a picture, and the unit of its labels; both can be changed later. */
function WhichRig({ door }: { door: Door }) {
  const [unit, setUnit] = useState<MassUnit>("lb");
  const [terms, setTerms] = useState<TermSet>("north_america");
  const { problem, attempt } = useAttempt();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const start = (kind: Kind | "alone") =>
    attempt(api.start("", kind === "alone" ? "conventional" : kind, unit, terms, kind === "alone"), ({ id }) => {
      void queries.invalidateQueries({ queryKey: ["rigs"] });
      navigate(LEADS[door](id));
    });
  return (
    <div className="border-x border-b border-ink px-4 py-3">
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <span className="text-[1rem]">The labels are in</span>
        <Choice
          label="Unit of the labels"
          value={unit}
          onChange={setUnit}
          options={[
            ["lb", "lb"],
            ["kg", "kg"],
          ]}
        />
        <span className="text-[1rem]">in the words of</span>
        <Choice
          label="Words of the labels"
          value={terms}
          onChange={setTerms}
          options={[
            ["north_america", "North America"],
            ["australia", "Australia, NZ"],
            ["europe", "Europe, UK"],
          ]}
        />
      </div>
      <p className="mb-2 text-[1rem]">Which rig?</p>
      <div className="grid grid-cols-2 gap-2 md:grid-cols-3">
        {RIGS.map(([kind, name]) => (
          <button
            key={kind}
            type="button"
            className="border border-ink bg-paper px-2 pt-2 pb-1.5 hover:bg-sunk"
            onClick={() => void start(kind)}
          >
            <KindPicture kind={kind} />
            <span className="block font-cond text-[1.0625rem] leading-tight font-semibold">
              {kind === "alone" && door === "tow" ? "no trailer yet" : name}
            </span>
          </button>
        ))}
      </div>
      <Refused problem={problem} />
    </div>
  );
}
