import { useQuery, useQueryClient } from "@tanstack/react-query";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, type RigSummary } from "../api/client";
import { useDesk } from "../api/useSheet";
import { verdictOf } from "../drawing/said";
import { day } from "../format";
import { Button } from "../ui/controls";
import { Slip } from "../ui/Dialog";
import { MenuBody, MenuItem, MenuRule } from "../ui/Menu";
import { marginText, statusWord, VerdictMark } from "../ui/Status";
import { useDeleted, useImport } from "./rigs";

const Chevron = () => (
  <svg width="10" height="7" viewBox="0 0 10 7" aria-hidden="true" className="shrink-0">
    <path d="M1 1l4 4 4-4" fill="none" stroke="currentColor" strokeWidth="1.6" />
  </svg>
);

/** Which rig is on the desk; starting, importing, exporting and deleting one. */
export function RigMenu() {
  const { rig, sheet, number } = useDesk();
  const [noYard, setNoYard] = useState<string | null>(null);
  const rigs = useQuery({ queryKey: ["rigs"], queryFn: api.rigs });
  const [asking, setAsking] = useState<"delete" | null>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const importing = useImport();
  const { deleted, bringBack } = useDeleted();
  const remove = async () => {
    await api.remove(sheet.id);
    await queries.invalidateQueries({ queryKey: ["rigs"] });
    setAsking(null);
    navigate("/");
  };
  const tryInTheYard = () =>
    api.ownYard(sheet.id, number).then(
      ({ run }) => navigate(`/practice/yard?run=${encodeURIComponent(run)}`),
      (error: Error) => setNoYard(error.message),
    );
  const dropExamples = async () => {
    await api.dropExamples();
    await queries.invalidateQueries({ queryKey: ["rigs"] });
    navigate("/");
  };
  return (
    <>
      <DropdownMenu.Root onOpenChange={(open) => open && void queries.invalidateQueries({ queryKey: ["rigs"] })}>
        <DropdownMenu.Trigger
          data-menu="rig"
          aria-label={`Rig: ${rig.name || "Unnamed rig"}`}
          className="flex h-10 min-w-0 items-center gap-2 px-2 font-cond text-[1.25rem] font-semibold hover:bg-sunk md:text-[1.375rem]"
        >
          <span className="max-w-[42vw] truncate">{rig.name || "Unnamed rig"}</span>
          <Chevron />
        </DropdownMenu.Trigger>
        <MenuBody>
          {rigs.data?.map((each) => (
            <MenuItem key={each.id} marked={each.id === sheet.id} onSelect={() => navigate(`/rigs/${each.id}/margins`)}>
              <RigLine rig={each} />
            </MenuItem>
          ))}
          <MenuRule />
          <MenuItem onSelect={() => navigate("/garage")}>The garage: couple another rig…</MenuItem>
          <MenuItem onSelect={() => navigate("/start")}>Start a new rig…</MenuItem>
          <MenuItem onSelect={() => navigate("/practice")}>Practice: lessons, challenges, a yard…</MenuItem>
          <MenuItem onSelect={() => void tryInTheYard()}>Try this rig in the practice yard</MenuItem>
          <MenuItem onSelect={() => navigate("/phones")}>Phones…</MenuItem>
          <MenuItem onSelect={() => navigate("/help/order")}>Help: order of work, traps, why it matters</MenuItem>
          <MenuItem onSelect={importing.open}>Import a rig file…</MenuItem>
          <MenuItem onSelect={() => window.location.assign(`/api/rigs/${sheet.id}/file`)}>
            Export this rig as a file
          </MenuItem>
          <MenuRule />
          <MenuItem onSelect={() => setAsking("delete")}>Delete this rig…</MenuItem>
          {rigs.data?.some((each) => each.example) && (
            <MenuItem onSelect={() => void dropExamples()}>Throw the examples away</MenuItem>
          )}
          {deleted.slice(0, 5).map((each) => (
            <MenuItem key={each.id} onSelect={() => void bringBack(each.id)}>
              Bring back {each.name || "an unnamed rig"}
            </MenuItem>
          ))}
        </MenuBody>
      </DropdownMenu.Root>
      {importing.input}
      <Slip
        open={asking === "delete"}
        onOpenChange={() => setAsking(null)}
        title={`Delete ${rig.name || "this rig"}?`}
        lead="Its plates and weigh-ins leave the list. This menu brings it back."
      >
        <div className="flex gap-3">
          <Button strong onClick={() => void remove()}>
            Delete it
          </Button>
          <Button onClick={() => setAsking(null)}>Keep it</Button>
        </div>
      </Slip>
      <Slip open={noYard !== null} onOpenChange={() => setNoYard(null)} title="Not enough is known for the yard">
        <p>{noYard}</p>
        <Button className="mt-4" onClick={() => setNoYard(null)}>
          Close
        </Button>
      </Slip>
      <Slip open={importing.problem !== null} onOpenChange={importing.forget} title="Not imported">
        <p className="whitespace-pre-line">{importing.problem}</p>
        <p className="mt-2 text-soft">Nothing was changed.</p>
        <Button className="mt-4" onClick={importing.forget}>
          Close
        </Button>
      </Slip>
    </>
  );
}

/** A rig in the menu: its name, its verdict, what is tightest of it, and the day it was weighed. */
function RigLine({ rig }: { rig: RigSummary }) {
  const { data } = useQuery({
    queryKey: ["glance", rig.id, rig.updated_at],
    queryFn: () => api.open(rig.id),
    enabled: !rig.damaged,
  });
  const checks = data?.evaluation.checks;
  const wrong = checks?.find((check) => check.status === "over" || check.status === "low");
  const doubted = !wrong && (data?.evaluation.doubts ?? []).length > 0;
  const tightest =
    wrong ??
    checks?.find((check) => check.id === data?.evaluation.binding) ??
    checks?.find((check) => check.expected?.outlook.startsWith("over"));
  const weighed = data?.evaluation.weigh_in ? data.rig.weigh_ins?.[data.evaluation.weigh_in - 1]?.date : null;
  const facts = data && [
    data.evaluation.headline.lead.replace(/[.:]$/, ""),
    doubted
      ? data.evaluation.headline.sentence.split(". ")[0]
      : tightest &&
        `${tightest.label} ${tightest.actual === null ? verdictOf(tightest, true) : marginText(tightest) || statusWord(tightest.status)}`,
    weighed && day(weighed),
  ];
  return (
    <span className="min-w-0 py-0.5">
      <span className="block max-w-[70vw] truncate">
        {rig.name || "Unnamed rig"}
        {rig.example && " (example)"}
        {rig.damaged && " (damaged)"}
      </span>
      {!rig.damaged && (
        <span className="flex min-h-5 max-w-[80vw] items-center gap-1.5 text-[0.8125rem] leading-tight opacity-80">
          {data && <VerdictMark verdict={data.evaluation.verdict} />}
          <span className="truncate">{facts?.filter(Boolean).join(" · ")}</span>
        </span>
      )}
    </span>
  );
}

/** Which weigh-in is looked at. */
export function WeighInMenu() {
  const { rig, sheet, weighIn, number, look } = useDesk();
  const navigate = useNavigate();
  const all = rig.weigh_ins ?? [];
  const here = weighIn ? all[weighIn - 1] : undefined;
  if (!here) return <span className="truncate text-[0.9375rem] text-soft max-md:hidden">not weighed yet</span>;
  const said = [here.date ? `weighed ${day(here.date)}` : "weighed", here.place].filter(Boolean).join(", ");
  if (all.length < 2) return <span className="truncate text-[0.9375rem] text-soft max-md:hidden">{said}</span>;
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        data-menu="weigh-in"
        aria-label={`Weigh-in no. ${number}: ${said}`}
        className="flex h-10 min-w-0 items-center gap-1.5 px-2 text-[0.9375rem] text-soft hover:bg-sunk hover:text-ink"
      >
        <span className="truncate max-md:hidden">{said}</span>
        <span className="font-cond whitespace-nowrap md:hidden">no. {number}</span>
        <Chevron />
      </DropdownMenu.Trigger>
      <MenuBody>
        {sheet.window.numbers.map((each, index) => (
          <MenuItem
            key={each}
            marked={each === number}
            onSelect={() => look(each === sheet.window.count ? undefined : each)}
          >
            {`${each}. ${day(all[index]?.date) || "no date"}${all[index]?.place ? `, ${all[index].place}` : ""}`}
          </MenuItem>
        ))}
        {all.length < sheet.window.count && (
          <MenuItem onSelect={() => navigate(`/rigs/${sheet.id}/log`)}>
            All {sheet.window.count} are in the Log…
          </MenuItem>
        )}
      </MenuBody>
    </DropdownMenu.Root>
  );
}
