import { type ReactNode, type RefObject, useEffect, useRef, useState } from "react";
import { NavLink, useLocation, useNavigate, useNavigationType } from "react-router";
import { useOthers, useWhereabouts } from "../api/presence";
import { type Saving, useQueue } from "../api/queue";
import { useLost } from "../api/reach";
import { useAside, useDesk } from "../api/useSheet";
import { useVisitor } from "../api/visitor";
import { FootContext } from "../ui/Foot";
import { GlossaryProvider } from "../ui/Glossary";
import { NotSaved } from "../ui/NotSaved";
import { Offline } from "../ui/Offline";
import { RigMenu, WeighInMenu } from "./menus";
import { PLACES, type Place } from "./places";
import { Shortcuts, useShortcuts } from "./shortcuts";
import { setTheme, useTheme } from "./theme";

/** Places whose first heading is the answer itself. */
const OWN_HEADING: ReadonlySet<string> = new Set(["margins", "path"]);

/** The frame around every place: where you are, which rig, whether it is saved. */
export function Shell({ place, children }: { place: Place | "path"; children: ReactNode }) {
  const { rig, sheet } = useDesk();
  const navigate = useNavigate();
  const weighIn = new URLSearchParams(useLocation().search).get("weigh-in");
  const search = weighIn ? `?weigh-in=${weighIn}` : "";
  const [help, setHelp] = useState(false);
  const go = (to: Place) => navigate(`/rigs/${sheet.id}/${to}${search}`);
  useShortcuts(go, () => setHelp((now) => !now));
  useWhereabouts(sheet.id, place);
  const title = PLACES.find((each) => each.id === place)?.name ?? "Start";
  const main = useRef<HTMLElement>(null);
  const [foot, setFoot] = useState<HTMLElement | null>(null);
  useScrolled(main, place);
  useEffect(() => {
    document.title = `${title} · ${rig.name || "a rig"} · Noxel`;
  }, [title, rig.name]);

  return (
    <div className="flex h-full flex-col md:flex-row">
      <a href="#content" className="sr-only z-50 bg-ink px-3 py-2 text-paper focus:not-sr-only focus:absolute">
        Skip to the content
      </a>
      <nav
        aria-label="Places"
        className="no-print order-last flex shrink-0 border-t border-ink bg-paper pb-[env(safe-area-inset-bottom)] md:order-first md:w-[4.75rem] md:flex-col md:border-t-0 md:border-r"
      >
        <NavLink
          to="/"
          className="hidden h-12 items-center justify-center font-cond text-[1.1875rem] font-semibold tracking-[0.14em] md:flex short:hidden"
        >
          NOXEL
        </NavLink>
        {PLACES.map((each, index) => (
          <NavLink
            key={each.id}
            to={`/rigs/${sheet.id}/${each.id}${search}`}
            title={each.says}
            className={({ isActive }) =>
              `flex h-14 flex-1 flex-col items-center justify-center font-cond md:h-[4.125rem] md:flex-none short:h-auto short:min-h-9 short:flex-1 ${isActive ? "bg-ink text-paper" : "text-soft hover:bg-sunk hover:text-ink"}`
            }
          >
            <span className="text-[1.1875rem] leading-tight font-semibold max-md:hidden short:hidden">{index + 1}</span>
            <span className="text-[0.875rem] leading-tight font-semibold md:text-[0.9375rem]">{each.name}</span>
          </NavLink>
        ))}
        <NavLink
          to="/practice"
          title="Lessons and a yard to learn in"
          className="hidden flex-col items-center justify-center border-t border-rule font-cond text-soft hover:bg-sunk hover:text-ink md:flex md:h-[4.125rem] short:h-auto short:min-h-9 short:flex-1 short:border-t-0"
        >
          <span className="text-[1.1875rem] leading-tight font-semibold max-md:hidden short:hidden">
            {PLACES.length + 1}
          </span>
          <span className="text-[0.9375rem] leading-tight font-semibold">Practice</span>
        </NavLink>
      </nav>
      <div className="flex min-h-0 min-w-0 flex-1 flex-col">
        <Header onHelp={() => setHelp(true)} />
        <main id="content" ref={main} tabIndex={-1} className="relative min-h-0 flex-1 overflow-y-auto outline-none">
          <StorageFault />
          <Offline />
          <LookingOnly />
          <NotSaved />
          {OWN_HEADING.has(place) || <h1 className="sr-only">{title}</h1>}
          <FootContext value={foot}>
            <GlossaryProvider>{children}</GlossaryProvider>
          </FootContext>
        </main>
        <div ref={setFoot} />
      </div>
      <Shortcuts open={help} onOpenChange={setHelp} />
    </div>
  );
}

/** Where each entry of the history was scrolled to. */
const scrolled = new Map<string, number>();

/** Another place starts at its top and takes the focus; Back and Forward return to where it was left. */
function useScrolled(main: RefObject<HTMLElement | null>, place: string) {
  const { hash, key } = useLocation();
  const back = useNavigationType() === "POP";
  useEffect(() => {
    const here = main.current;
    const note = () => here && scrolled.set(key, here.scrollTop);
    here?.addEventListener("scroll", note, { passive: true });
    return () => here?.removeEventListener("scroll", note);
  }, [main, key]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: another place is what starts at its top
  useEffect(() => {
    if (hash) return; // the address names a field, which takes the focus itself
    const top = back ? (scrolled.get(key) ?? 0) : 0;
    const go = () => main.current?.scrollTo(0, top);
    go();
    if (top) requestAnimationFrame(go); // a place that fills in after its first look
    main.current?.focus({ preventScroll: true });
  }, [place]);
}

function Header({ onHelp }: { onHelp: () => void }) {
  const { sheet, undo, redo } = useDesk();
  const now = useTheme();
  const flip = () => setTheme(now === "day" ? "night" : "day");
  const icon =
    "flex h-10 min-w-9 items-center justify-center px-1.5 hover:bg-sunk disabled:text-rule disabled:hover:bg-transparent";
  return (
    <header className="no-print flex h-12 shrink-0 items-center gap-1 border-b border-ink pr-2 pl-2 md:gap-2 md:pl-4">
      <RigMenu />
      <WeighInMenu />
      <span className="flex-1" />
      <Others />
      <SavedMark />
      <button
        type="button"
        className={icon}
        onClick={undo}
        disabled={!sheet.undo}
        aria-label={sheet.undo ? `Undo ${sheet.undo}` : "Nothing to undo"}
        title={sheet.undo ? `Undo ${sheet.undo}` : "Nothing to undo"}
      >
        <Arrow />
      </button>
      <button
        type="button"
        className={`${icon} ${sheet.redo ? "" : "max-md:hidden"}`}
        onClick={redo}
        disabled={!sheet.redo}
        aria-label={sheet.redo ? `Redo ${sheet.redo}` : "Nothing to redo"}
        title={sheet.redo ? `Redo ${sheet.redo}` : "Nothing to redo"}
      >
        <Arrow back />
      </button>
      <button type="button" className={`${icon} font-cond text-[1rem]`} onClick={flip} title="Day or night (t)">
        {now === "day" ? "night" : "day"}
      </button>
      <button
        type="button"
        className={`${icon} font-cond text-[1.125rem] max-md:hidden`}
        onClick={onHelp}
        aria-label="Shortcuts"
        title="Shortcuts (?)"
      >
        ?
      </button>
    </header>
  );
}

/** What the disk or the database refuses, across the page; what is typed waits in this browser meanwhile. */
function StorageFault() {
  const { saving, unkept } = useQueue();
  const lost = useLost() !== null;
  const banner = "no-print border-b-2 border-ink bg-card px-4 py-2 text-[0.9375rem] leading-snug lg:px-6";
  if (unkept)
    return (
      <p role="alert" className={banner}>
        <span className="font-semibold">This browser keeps nothing ({unkept.slice(0, 120)}).</span> What you type is
        sent all the same. Leave the page open until it says “saved”.
      </p>
    );
  if (saving.state !== "waiting" || lost) return null;
  return (
    <p role="alert" className={banner}>
      <span className="font-semibold">Not saved yet.</span> {saving.why} What you type is kept in this browser and sent
      as soon as it can be.
    </p>
  );
}

/** Who else has this rig open, and where. */
function Others() {
  const { sheet } = useDesk();
  const others = useOthers(sheet.id);
  const { here } = useVisitor();
  const first = others[0];
  if (!first) return null;
  const where =
    PLACES.find((each) => each.id === first.place)?.name ?? (first.place === "visit" ? "the visit" : "Start");
  const more = others.length > 1 ? ` and ${others.length - 1} more` : "";
  return (
    <span data-part="others" className="truncate border-l-4 border-spruce pl-2 text-[0.875rem] text-soft max-md:hidden">
      {first.name ?? (here ? "another window" : "the computer")} is in {where}
      {more}
    </span>
  );
}

/** For a device that was invited to look. */
function LookingOnly() {
  const { viewing } = useVisitor();
  if (!viewing) return null;
  return (
    <p className="no-print border-b border-ink bg-sunk px-4 py-1.5 text-[0.9375rem] lg:px-6">
      You may look at everything here; nothing you type is kept.
    </p>
  );
}

function Arrow({ back = false }: { back?: boolean }) {
  return (
    <svg width="20" height="16" viewBox="0 0 20 16" aria-hidden="true" className={back ? "-scale-x-100" : ""}>
      <path d="M7 1L2 6l5 5M2 6h10a5 4.5 0 010 9H8" fill="none" stroke="currentColor" strokeWidth="1.8" />
    </svg>
  );
}

/** Whether all is saved. Its width stays, so that nothing beside it moves; only what is wrong is read aloud. */
function SavedMark() {
  const { saving } = useQueue();
  const { refused } = useDesk();
  const aside = useAside().length;
  const [says, wrong] = refused && saving.state === "saved" ? [refused, true] : savedWords(saving, aside);
  return (
    <span
      role={wrong ? "status" : undefined}
      data-part="saving"
      title={saving.state === "waiting" ? saving.why : undefined}
      className={`line-clamp-2 min-w-15 max-w-96 text-right font-cond text-[0.9375rem] leading-tight ${wrong ? "border-l-4 border-ink pl-2 font-semibold" : "text-soft"}`}
    >
      {says}
    </span>
  );
}

function savedWords(saving: Saving, aside: number): [string, boolean] {
  switch (saving.state) {
    case "saved":
      return aside ? [`${aside} not saved`, true] : ["saved", false];
    case "saving":
      return ["saving…", false];
    case "waiting":
      return ["not saved yet, trying again", true];
  }
}
