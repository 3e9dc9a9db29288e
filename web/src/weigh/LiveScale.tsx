import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, type Change, type Fault, type LiveOut, type Pass } from "../api/client";
import { useDesk } from "../api/useSheet";
import { atRest } from "../format";
import { Button } from "../ui/controls";
import { Refused, useAttempt } from "../ui/useAttempt";
import { useWords } from "../ui/useTerms";
import { wordsFor } from "./readings";

const FAULTS: readonly (readonly [Fault, string])[] = [
  ["none", "nothing wrong"],
  ["straddle", "an axle across two platforms"],
  ["early", "rolled off too early"],
  ["unstable", "never settles"],
  ["overload", "overload"],
  ["drop", "the line drops"],
  ["rubbish", "sends rubbish"],
  ["hang", "says nothing"],
];
const POLL_MS = 250;

/** A scale that sends its readings: what each channel reads, whether it has settled, and the way to keep it. */
export function LiveScale({ weighIn, index, pass }: { weighIn: number; index: number; pass: Pass }) {
  const { sheet, rig, number, change, evaluation } = useDesk();
  const word = useWords();
  const queries = useQueryClient();
  const { problem, attempt } = useAttempt();
  const [address, setAddress] = useState("");
  const query = useQuery({
    queryKey: ["live"],
    queryFn: api.live,
    refetchInterval: (now) => (now.state.data && now.state.data.state !== "off" ? POLL_MS : false),
  });
  const live = query.data;
  const on = live !== undefined && live.state !== "off";
  const scaleKind = rig.weigh_ins?.[weighIn - 1]?.scale?.kind;
  const unit = pass.unit ?? rig.units.mass;
  const step = rig.weigh_ins?.[weighIn - 1]?.scale?.resolution;
  const run = (make: Promise<LiveOut>) => attempt(make, (now) => queries.setQueryData(["live"], now));
  const connect = () => run(api.connect({ stand_in: sheet.id, unit, weigh_in: number ?? null }));
  const steady = live?.readings.filter((each) => each.stable && !each.overload) ?? [];
  const usable = steady.filter((each) => each.channel !== "tongue");
  const allSteady =
    on && usable.length > 0 && usable.length === live.readings.filter((each) => each.channel !== "tongue").length;

  /** Writes readings into the pass as if they had been typed; what it read before and reads no longer is cleared. */
  const keep = (readings: Record<string, number>, of: string, what: string, more: Change[] = []) => {
    const path = `weigh_ins[${weighIn - 1}].passes[${index}]`;
    const typed = (name: string, text: string): Change => ({ path: `${path}.${name}`, op: "type", text });
    const suffix = of === unit ? "" : ` ${of}`;
    const gone = Object.keys(pass.readings ?? {}).filter((name) => !(name in readings));
    change(
      [
        ...gone.map((name) => typed(`readings.${name}`, "")),
        ...Object.entries(readings).map(([name, mass]) => typed(`readings.${name}`, `${mass}${suffix}`)),
        ...more,
      ],
      what,
    );
  };
  const capture = () =>
    keep(
      Object.fromEntries(usable.map((each) => [each.channel, each.mass])),
      usable[0]?.unit ?? unit,
      `the scale's readings for pass ${index + 1}`,
    );

  const tongue = steady.find((each) => each.channel === "tongue");
  const measured = rig.weigh_ins?.[weighIn - 1]?.tongue_measurements?.length ?? 0;
  const keepTongue = (reading: LiveOut["readings"][number]) =>
    change(
      [
        {
          path: `weigh_ins[${weighIn - 1}].tongue_measurements[${measured}]`,
          op: "insert",
          value: { method: "scale" },
          texts: { value: `${reading.mass} ${reading.unit}`, resolution: String(step ?? "") },
        },
      ],
      `the reading of the ${word("tongue_scale")}`,
    );

  const keepTicket = (ticket: NonNullable<LiveOut["ticket"]>) => {
    const path = `weigh_ins[${weighIn - 1}].passes[${index}]`;
    keep(ticket.readings, ticket.unit, `ticket ${ticket.number}`, [
      { path: `${path}.printed_gross`, op: "type", text: `${ticket.gross} ${ticket.unit}` },
      { path: `${path}.ticket_number`, op: "type", text: ticket.number },
    ]);
  };

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== "c" || event.target instanceof HTMLInputElement || event.ctrlKey || event.metaKey || !allSteady)
        return;
      capture();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  });

  return (
    <section aria-label="Live from a scale">
      <h2 className="font-cond text-[1.25rem] font-semibold">Live from a scale</h2>
      {!on && (
        <>
          <p className="mt-1 mb-2 max-w-[60ch] text-[0.875rem] leading-snug text-soft">
            A simulator stands in for the scale, for practice: it weighs a rig much like yours, with true loads of its
            own.
          </p>
          <Button onClick={() => void connect()}>Connect the simulator</Button>
          <form
            className="mt-2 flex items-center gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              void run(api.connect({ address }));
            }}
          >
            <input
              value={address}
              aria-label="Address of a scale on this machine"
              placeholder="or 127.0.0.1:4001"
              onChange={(event) => setAddress(event.currentTarget.value)}
              className="h-10 min-w-0 flex-1 border-b-2 border-edge bg-card px-2 outline-none placeholder:text-soft focus:border-ink"
            />
            <Button type="submit" disabled={!address.trim()}>
              Connect
            </Button>
          </form>
        </>
      )}
      {on && live && (
        <>
          <p className="mt-1 text-[0.9375rem]" role="status" data-live={live.state}>
            <StateMark state={live.state} />{" "}
            {live.problem ?? (live.readings.length ? "reading" : "connected; nothing on the scale")}
          </p>
          {live.stand_in && (
            <div className="mt-2 flex flex-wrap gap-2">
              <Button
                onClick={() =>
                  void run(
                    api.command({
                      do: "drive_on",
                      config: pass.config,
                      spring_bars: pass.spring_bars ?? "none",
                      pads: scaleKind === "wheel_pads",
                    }),
                  )
                }
              >
                Drive on for pass {index + 1}
              </Button>
              <Button onClick={() => void run(api.command({ do: "weigh" }))}>Take the weight</Button>
              <Button onClick={() => void run(api.command({ do: "drive_off" }))}>Drive off</Button>
              <label className="flex items-center gap-1.5 font-cond text-[0.9375rem]">
                with
                <select
                  aria-label="Fault to play"
                  value={live.fault}
                  onChange={(event) =>
                    void run(api.command({ do: "fault", fault: event.currentTarget.value as Fault }))
                  }
                  className="h-10 border border-edge bg-card px-1 text-ink"
                >
                  {FAULTS.map(([fault, words]) => (
                    <option key={fault} value={fault}>
                      {words}
                    </option>
                  ))}
                </select>
              </label>
            </div>
          )}
          <ul className="mt-3 grid grid-cols-2 gap-2">
            {live.readings.map((each) => (
              <li
                key={each.channel}
                data-channel={each.channel}
                data-stable={each.stable}
                className={`border bg-card px-3 py-1.5 ${each.stable ? "border-ink" : "border-dashed border-soft"}`}
              >
                <span className="block text-[0.8125rem] text-soft">
                  {each.channel === "tongue" ? "tongue scale" : wordsFor(each.channel)}
                </span>
                <span className="font-cond text-[1.625rem] leading-none font-semibold">{atRest(each.mass)}</span>{" "}
                <span className="text-[0.8125rem]">{each.unit}</span>
                <span className="block font-cond text-[0.875rem]">
                  {each.overload ? "overload" : each.stable ? "settled" : "moving …"}
                </span>
              </li>
            ))}
          </ul>
          {live.ticket && (
            <div className="mt-3 border border-dashed border-ink bg-card px-3 py-2" data-ticket={live.ticket.number}>
              <p className="text-[0.9375rem] leading-snug">
                <strong>Ticket {live.ticket.number}</strong>, {live.ticket.kind}: {atRest(live.ticket.gross)}{" "}
                {live.ticket.unit} in all
              </p>
              <Button className="mt-1" onClick={() => live.ticket && keepTicket(live.ticket)}>
                Keep this ticket for pass {index + 1}
              </Button>
            </div>
          )}
          <div className="mt-3 flex flex-wrap gap-2">
            <Button strong disabled={!allSteady} onClick={capture}>
              Keep these for pass {index + 1}
            </Button>
            {tongue && <Button onClick={() => keepTongue(tongue)}>Keep the {evaluation.terms.tongue}</Button>}
            <Button onClick={() => void run(api.disconnect())}>Disconnect</Button>
          </div>
          <p className="mt-1 text-[0.8125rem] text-soft">Key c keeps them. Only settled readings can be kept.</p>
        </>
      )}
      <Refused problem={problem} />
    </section>
  );
}

function StateMark({ state }: { state: LiveOut["state"] }) {
  const look = "mr-1 inline-block h-3 w-3 align-[-1px]";
  switch (state) {
    case "live":
      return <span className={`${look} bg-spruce`} aria-hidden="true" />;
    case "connecting":
    case "lost":
      return <span className={`${look} hatch border border-ochre`} aria-hidden="true" />;
    case "silent":
    case "off":
      return <span className={`${look} border border-dotted border-soft`} aria-hidden="true" />;
  }
}
