import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useId, useState } from "react";
import { Link, useNavigate } from "react-router";
import { api, type Equipment, type EquipmentKind, type Kind } from "../api/client";
import { KINDS } from "../app/rigs";
import { Button, Picks } from "../ui/controls";
import { PageFrame } from "../ui/PageFrame";
import { type Attempt, Refused, useAttempt } from "../ui/useAttempt";

const COLUMNS = [
  ["vehicle", "Vehicles"],
  ["hitch", "Hitches"],
  ["trailer", "Trailers"],
] as const;
type Chosen = Partial<Record<EquipmentKind, string>>;

/** Vehicles, hitches and trailers on their own: choose one of each and couple them into a rig. */
export function Garage() {
  const queries = useQueryClient();
  const equipment = useQuery({ queryKey: ["garage"], queryFn: api.garage });
  const [chosen, setChosen] = useState<Chosen>({});
  const { problem, attempt } = useAttempt();
  const act = (doing: Promise<unknown>) => attempt(doing, () => queries.invalidateQueries({ queryKey: ["garage"] }));
  const all = equipment.data ?? [];
  return (
    <PageFrame name="The garage">
      <h1 className="sr-only">The garage</h1>
      <p className="max-w-[80ch] text-[0.9375rem] leading-snug">
        A change in one rig shows in every rig with the same vehicle, hitch or trailer. Copy one to try another trim.
        Retired equipment stays in its rigs, with its weigh-ins.
      </p>
      <Refused problem={problem ?? equipment.error?.message} />
      <div className="mt-4 items-start gap-6 md:grid md:grid-cols-3">
        {COLUMNS.map(([kind, title]) => (
          <section key={kind} aria-label={title} className="mb-6">
            <h2 className="mb-2 border-b-2 border-ink font-cond text-[1.375rem] font-semibold">{title}</h2>
            {all
              .filter((each) => each.kind === kind)
              .map((each) => (
                <Card
                  key={each.id}
                  equipment={each}
                  chosen={chosen[kind] === each.id}
                  onChoose={() => setChosen({ ...chosen, [kind]: chosen[kind] === each.id ? undefined : each.id })}
                  act={act}
                />
              ))}
            {equipment.data && all.every((each) => each.kind !== kind) && (
              <p className="text-[0.9375rem] text-soft">None yet.</p>
            )}
          </section>
        ))}
      </div>
      <CoupleForm all={all} chosen={chosen} attempt={attempt} />
    </PageFrame>
  );
}

function Card(props: {
  equipment: Equipment;
  chosen: boolean;
  onChoose: () => void;
  act: (doing: Promise<unknown>) => Promise<unknown>;
}) {
  const { equipment, chosen, onChoose, act } = props;
  const name = nameOf(equipment);
  const small = "font-cond text-[0.9375rem] underline underline-offset-2";
  return (
    <article
      data-equipment={equipment.id}
      className={`mb-3 border p-3 ${chosen ? "border-ink bg-sunk shadow-[inset_5px_0_0_var(--ink)]" : equipment.retired ? "border-dotted border-rule" : "border-rule"}`}
    >
      <h3 className="font-cond text-[1.1875rem] leading-tight font-semibold">
        {name}
        {equipment.retired && <span className="font-normal text-soft"> · retired</span>}
      </h3>
      <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-3 text-[0.875rem]">
        {equipment.facts.map((fact) => (
          <div key={fact.label} className="contents">
            <dt className="text-soft">{fact.label}</dt>
            <dd className="text-right font-cond text-[1rem] font-semibold">{fact.text}</dd>
          </div>
        ))}
      </dl>
      <p className="mt-1 text-[0.8125rem] leading-snug text-soft">
        {equipment.rigs.length === 0 ? "in no rig" : "in "}
        {equipment.rigs.map((rig, index) => (
          <span key={rig.id}>
            {index > 0 && ", "}
            <Link to={`/rigs/${rig.id}/plates`} className="underline">
              {rig.name || "an unnamed rig"}
            </Link>
          </span>
        ))}
      </p>
      <div className="mt-2 flex flex-wrap gap-x-4 gap-y-1">
        {!equipment.retired && (
          <button
            type="button"
            className={small}
            aria-pressed={chosen}
            aria-label={`Choose ${name}`}
            onClick={onChoose}
          >
            {chosen ? "chosen" : "choose"}
          </button>
        )}
        <button
          type="button"
          className={small}
          aria-label={`Copy ${name}`}
          onClick={() => void act(api.copyEquipment(equipment.id))}
        >
          copy
        </button>
        <button
          type="button"
          className={small}
          aria-label={equipment.retired ? `Offer ${name} again` : `Retire ${name}`}
          onClick={() =>
            void act(equipment.retired ? api.reviveEquipment(equipment.id) : api.retireEquipment(equipment.id))
          }
        >
          {equipment.retired ? "offer again" : "retire"}
        </button>
        {equipment.rigs.length === 0 && (
          <button
            type="button"
            className={small}
            aria-label={`Remove ${name}`}
            onClick={() => void act(api.removeEquipment(equipment.id))}
          >
            remove
          </button>
        )}
      </div>
    </article>
  );
}

const nameOf = (equipment: Equipment) =>
  equipment.name || `Unnamed ${equipment.kind} of ${equipment.rigs[0]?.name || "no rig"}`;

function CoupleForm(props: { all: readonly Equipment[]; chosen: Chosen; attempt: Attempt }) {
  const { all, chosen, attempt } = props;
  const [name, setName] = useState("");
  const [kind, setKind] = useState<Kind>("conventional");
  const navigate = useNavigate();
  const queries = useQueryClient();
  const id = useId();
  const named = (which: EquipmentKind) => all.find((each) => each.id === chosen[which]);
  const [vehicle, hitch, trailer] = [named("vehicle"), named("hitch"), named("trailer")];
  const usual = [vehicle, trailer].flatMap((each) => (each ? [nameOf(each)] : [])).join(" + ");
  const couple = (event: FormEvent) => {
    event.preventDefault();
    if (!vehicle) return;
    const parts = { vehicle: vehicle.id, hitch: hitch?.id ?? null, trailer: trailer?.id ?? null };
    void attempt(api.couple({ name: name.trim() || usual, kind, ...parts }), ({ id: rig }) => {
      void queries.invalidateQueries({ queryKey: ["rigs"] });
      void queries.invalidateQueries({ queryKey: ["garage"] });
      navigate(`/rigs/${rig}/plates`);
    });
  };
  return (
    <form onSubmit={couple} aria-label="Couple a rig" className="border border-ink p-4">
      <h2 className="font-cond text-[1.375rem] font-semibold">Couple a rig</h2>
      <p className="mt-1 text-[0.9375rem]">
        {vehicle ? nameOf(vehicle) : "Choose a vehicle above"}
        {hitch && `, by ${nameOf(hitch)}`}
        {trailer ? `, with ${nameOf(trailer)}` : vehicle ? ", with a blank trailer if its kind has one" : ""}.
      </p>
      <div className="mt-3">
        <Picks label="Kind of rig" value={kind} options={KINDS} onChange={setKind} />
      </div>
      <div className="mt-3 flex flex-wrap items-end gap-3">
        <div className="min-w-64 flex-1">
          <label htmlFor={id} className="mb-1 block text-[0.9375rem]">
            Its name
          </label>
          <input
            id={id}
            value={name}
            placeholder={usual}
            maxLength={200}
            onChange={(event) => setName(event.currentTarget.value)}
            className="h-11 w-full border-b-2 border-edge bg-card px-2 text-[1.0625rem] outline-none focus:border-ink"
          />
        </div>
        <Button strong type="submit" disabled={!vehicle}>
          Couple them
        </Button>
      </div>
    </form>
  );
}
