import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, type Invitation, type PairedDevice, type ShareState } from "../api/client";
import { useVisitor } from "../api/visitor";
import { when } from "../format";
import { Button, Choice } from "../ui/controls";
import { PageFrame } from "../ui/PageFrame";

/** Phones and other devices: let them in, invite them, shut them out. Only the machine that runs Noxel may. */
export function Phones() {
  const visitor = useVisitor();
  return (
    <PageFrame name="Phones">
      <h1 className="sr-only">Phones</h1>
      {visitor.here ? <Owner /> : <Guest name={visitor.name} viewing={visitor.viewing} />}
    </PageFrame>
  );
}

function Guest({ name, viewing }: { name: string | null; viewing: boolean }) {
  return (
    <div className="max-w-[60ch] text-[1.0625rem] leading-snug">
      <p>
        This device is paired as <b>{name}</b>.{" "}
        {viewing ? "It may look, not change anything." : "It shows and changes the same rigs as the computer."}
      </p>
      <p className="mt-3">Only the computer that runs Noxel can invite devices and shut them out.</p>
      <p className="mt-3">
        To use Noxel without a network, this device must trust the computer:{" "}
        <a href="/authority.crt" className="underline underline-offset-2">
          download its certificate
        </a>
        , install it in the settings, then choose “Add to home screen” or “Install” in the menu of the browser.
      </p>
    </div>
  );
}

function Owner() {
  const queries = useQueryClient();
  const state = useQuery({ queryKey: ["share"], queryFn: api.sharing, refetchInterval: 15_000 });
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const act = async (doing: Promise<ShareState>) => {
    setBusy(true);
    try {
      queries.setQueryData(["share"], await doing);
      setProblem(null);
    } catch (error) {
      setProblem((error as Error).message);
    }
    setBusy(false);
  };
  const now = state.data;
  const wrong = problem ?? state.error?.message;
  return (
    <div className="max-w-[64rem] gap-10 lg:grid lg:grid-cols-[1fr_22rem]">
      <div>
        <p className="max-w-[62ch] text-[1.0625rem] leading-snug">
          A phone can type the tickets at the scale and shows the same rigs. It must be in the same network as this
          computer, such as the phone's own hotspot, and invited by you.
        </p>
        {wrong && (
          <p role="alert" className="mt-3 border-l-4 border-ink pl-2 font-semibold">
            {wrong}
          </p>
        )}
        {now && !now.on && (
          <Button strong className="mt-4 min-h-12" disabled={busy} onClick={() => void act(api.share(true))}>
            Turn sharing on
          </Button>
        )}
        {now?.on && <Invite state={now} onProblem={setProblem} />}
        {now?.on && (
          <p className="mt-6 border-t border-rule pt-3 text-[0.9375rem]">
            <Button disabled={busy} onClick={() => void act(api.share(false))}>
              Turn sharing off
            </Button>
            <span className="ml-3 text-soft">Ends every connection. Paired devices stay paired for the next time.</span>
          </p>
        )}
      </div>
      {now && <Devices state={now} onShut={(id) => void act(api.shutOut(id))} />}
    </div>
  );
}

function Invite({ state, onProblem }: { state: ShareState; onProblem: (problem: string | null) => void }) {
  const [invitation, setInvitation] = useState<Invitation | null>(null);
  const [viewing, setViewing] = useState<"all" | "look">("all");
  const [host, setHost] = useState<string | null>(null);
  const [left, setLeft] = useState(0);
  const paired = state.devices.length;
  const [before, setBefore] = useState(paired);
  const address = host && state.hosts.includes(host) ? host : (state.hosts[0] ?? "");
  const invite = (at: string) =>
    api.invite(viewing === "look", at || null).then(
      (made) => {
        setInvitation(made);
        setLeft(made.seconds);
        setBefore(paired);
        onProblem(null);
      },
      (error: Error) => onProblem(error.message),
    );
  useEffect(() => {
    if (!invitation) return;
    const due = Date.now() + invitation.seconds * 1000;
    const tick = setInterval(() => setLeft(Math.max(0, Math.round((due - Date.now()) / 1000))), 1000);
    return () => clearInterval(tick);
  }, [invitation]);
  const used = paired > before;
  const good = invitation && left > 0 && !used;
  return (
    <section aria-label="Invite a device" className="mt-4">
      <div className="flex flex-wrap items-center gap-3">
        <Choice
          label="What the device may do"
          value={viewing}
          options={[
            ["all", "may change things"],
            ["look", "may only look"],
          ]}
          onChange={(next) => {
            setViewing(next);
            setInvitation(null);
          }}
        />
        <Button strong={!good} className="min-h-12" onClick={() => void invite(address)}>
          {invitation ? "Invite another device" : "Invite a device"}
        </Button>
      </div>
      <p role="status" className="sr-only">
        {used ? "The device is paired." : ""}
      </p>
      {used && (
        <p className="mt-4 border-l-4 border-spruce pl-2 text-[1.0625rem] font-semibold">The device is paired.</p>
      )}
      {good && (
        <div className="mt-4 gap-6 md:flex">
          <img
            alt="The invitation as a QR code"
            className="h-56 w-56 shrink-0 border border-ink bg-white"
            src={`data:image/svg+xml,${encodeURIComponent(invitation.picture)}`}
          />
          <div className="mt-3 min-w-0 text-[1rem] leading-snug md:mt-0">
            <ol className="list-decimal space-y-1.5 pl-5">
              <li>Point the phone's camera at the code and open the address.</li>
              <li>
                The first time, the browser warns that it does not know this computer. Go on: the certificate is this
                computer's own.
              </li>
              <li>Choose “Pair this device”.</li>
            </ol>
            <p className="mt-3 font-cond text-[1.125rem] font-semibold">
              Works once, for {Math.floor(left / 60)}:{String(left % 60).padStart(2, "0")} more.
            </p>
            <p className="mt-2 text-[0.8125rem] break-all text-soft">{invitation.address}</p>
            {state.hosts.length > 1 && (
              <label className="mt-2 block text-[0.9375rem]">
                The phone does not find it? Use another address of this computer:{" "}
                <select
                  className="mt-1 h-10 border border-ink bg-card px-2"
                  value={address}
                  onChange={(event) => {
                    setHost(event.target.value);
                    void invite(event.target.value);
                  }}
                >
                  {state.hosts.map((each) => (
                    <option key={each}>{each}</option>
                  ))}
                </select>
              </label>
            )}
          </div>
        </div>
      )}
      {invitation && left === 0 && !used && <p className="mt-4">That invitation has ended. Make another one.</p>}
      {state.fingerprint && (
        <details className="mt-5 text-[0.875rem]">
          <summary className="cursor-pointer py-2 font-semibold">The certificate of this computer</summary>
          <p className="max-w-[62ch] leading-snug">
            Noxel made it on this computer, for this computer's own networks only. A phone that installs it can keep
            Noxel without a network. Compare the fingerprint with the one that the phone shows:
          </p>
          <p className="mt-1 max-w-[62ch] font-mono text-[0.75rem] break-all">{state.fingerprint}</p>
        </details>
      )}
    </section>
  );
}

function Devices({ state, onShut }: { state: ShareState; onShut: (id: string) => void }) {
  return (
    <section aria-label="Paired devices" className="mt-8 lg:mt-0">
      <h2 className="border-b-2 border-ink font-cond text-[1.375rem] font-semibold">Paired devices</h2>
      {state.devices.length === 0 && <p className="mt-2 text-[0.9375rem] text-soft">None yet.</p>}
      <ul>
        {state.devices.map((each: PairedDevice) => (
          <li key={each.id} className="flex items-center gap-3 border-b border-rule py-2">
            <span className="min-w-0 flex-1">
              <span className="block truncate font-cond text-[1.1875rem] font-semibold">{each.name}</span>
              <span className="block text-[0.875rem] leading-snug text-soft">
                {each.viewing ? "may only look" : "may change things"} ·{" "}
                {each.open_now ? "open now" : `last used ${when(each.used_at)}`}
              </span>
            </span>
            <Button aria-label={`Shut out ${each.name}`} onClick={() => onShut(each.id)}>
              Shut out
            </Button>
          </li>
        ))}
      </ul>
      {state.wrong > 0 && (
        <p className="mt-3 border-l-4 border-ochre pl-2 text-[0.9375rem] leading-snug">
          {state.wrong === 1
            ? "One invitation that does not exist was"
            : `${state.wrong} invitations that do not exist were`}{" "}
          tried since Noxel was started. If that was not you, turn sharing off.
        </p>
      )}
    </section>
  );
}
