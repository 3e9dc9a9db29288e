import type { components } from "../../generated/api";
import { forgetAnswers } from "./kept";
import { long } from "./long";
import { reached } from "./reach";

type Schemas = components["schemas"];
export type Sheet = Schemas["Sheet"];
export type RigFile = Schemas["RigFile"];
export type Evaluation = Schemas["Evaluation"];
export type Check = Schemas["Check"];
export type Status = Check["status"];
export type Outlook = NonNullable<Check["expected"]>["outlook"];
export type Working = Schemas["Working"];
export type WorkLine = Schemas["Line"];
export type Advisory = Schemas["Advisory"];
export type Geometry = Schemas["Geometry"];
export type Value = Schemas["Value"];
export type PassAnswer = Schemas["PassAnswer"];
export type Pass = Schemas["Pass"];
export type RigSummary = Schemas["RigSummary"];
export type Change = Schemas["ChangeIn"];
export type Source = NonNullable<Schemas["Entry"]["source"]>;
export type FieldState = Schemas["FieldState"];
export type Plan = Schemas["PassPlan"];
export type ScaleKind = Schemas["ScaleOffer"]["kind"];
export type LiveOut = Schemas["LiveOut"];
export type LiveCommand = Schemas["Command"];
export type Fault = LiveOut["fault"];
export type PackAnswer = Schemas["PackAnswer"];
export type ItemEffect = Schemas["ItemEffect"];
export type Load = Schemas["Load"];
export type Tank = Schemas["Tank"];
export type Category = NonNullable<Load["category"]>;
export type Phase = NonNullable<Schemas["Plan"]["phase"]>;
export type QuickItem = Schemas["QuickItem"];
export type TablePreview = Schemas["TablePreview"];
export type ListPreview = Schemas["ListPreview"];
export type TongueWay = Schemas["TongueWay"];
export type Kind = RigFile["kind"];
export type Log = Schemas["Log"];
export type LogLine = Schemas["LogLine"];
export type Reminder = Schemas["Reminder"];
export type Chart = Schemas["Chart"];
export type Comparison = Schemas["Comparison"];
export type Step = Schemas["Step"];
export type TypedStep = Schemas["TypedStep"];
export type Adjustment = Schemas["OnTheBench"];
export type Proposals = Schemas["Proposals"];
export type Lever = Schemas["Lever"];
export type BarCurve = Schemas["BarCurve"];
export type HowMuch = Schemas["HowMuch"];
export type RoomChart = Schemas["RoomChart"];
export type MatchCell = Schemas["Cell"];
export type MatchRow = Schemas["MatchRow"];
export type Words = Schemas["Words"];
export type LeverLength = Schemas["LeverLength"];
export type Equipment = Schemas["EquipmentOut"];
export type EquipmentKind = Equipment["kind"];
export type TireAnswer = Schemas["TireAnswer"];
export type ReadinessItem = Schemas["ReadinessItem"];
export type PastedAnswer = Schemas["PastedAnswer"];
export type JottedTicket = Schemas["JottedTicket"];
export type VisitState = Schemas["VisitState"];
export type VisitStep = Schemas["VisitStep"];
export type Photo = Schemas["PhotoOut"];
export type DriveNotes = Schemas["DriveNotes"];
export type OwnLine = Schemas["OwnLine"];
export type Present = Schemas["Present"];
export type OpenPages = Schemas["OpenPages"];
export type ShareState = Schemas["ShareState"];
export type PairedDevice = Schemas["DeviceOut"];
export type Invitation = Schemas["Invitation"];
export type MassUnit = "lb" | "kg";
type Problem = Schemas["ProblemDetails"];

/** An answer that says what was wrong; `problem` is what the server said, absent when it could not be reached. */
export class RequestFailed extends Error {
  constructor(
    message: string,
    readonly problem?: Problem,
  ) {
    super(message);
  }
}

async function answered(path: string, how: RequestInit): Promise<Response> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, how);
  } catch (error) {
    if (how.signal?.aborted) throw error;
    reached(false);
    throw new RequestFailed("Noxel does not answer. Is it still running?");
  }
  reached(true);
  if (response.status === 401) void forgetAnswers();
  if (!response.ok) {
    const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
    throw new RequestFailed(problem?.detail ?? `The answer was ${response.status}.`, problem);
  }
  return response;
}

/** This page among others that are open, as the server knows it. */
export const PAGE = crypto.randomUUID();
const FROM_HERE = { "x-noxel-page": PAGE };
const JSON_SENT = { "content-type": "application/json", ...FROM_HERE };

export async function ask<T>(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<T> {
  const response = await answered(path, {
    method,
    headers: body === undefined ? FROM_HERE : JSON_SENT,
    body: body === undefined ? null : JSON.stringify(body),
    signal: signal ?? null,
  });
  return (response.status === 204 ? undefined : await response.json()) as T;
}

/** Send a file; how far it is can be seen meanwhile. */
const send = <T>(path: string, file: Blob, says: string) =>
  long(says, async (name) => {
    const headers = { ...JSON_SENT, "x-noxel-progress": name };
    return (await (await answered(path, { method: "POST", headers, body: file })).json()) as T;
  });

/** Fetch a file that takes a while to write, and hand it to the browser as a download. */
export const download = (path: string, says: string) =>
  long(says, async () => {
    const response = await answered(path, {});
    const named = /filename\*=UTF-8''([^;]+)/.exec(response.headers.get("content-disposition") ?? "")?.[1];
    const link = document.createElement("a");
    link.href = URL.createObjectURL(await response.blob());
    link.download = decodeURIComponent(named ?? "noxel");
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
  });

const looking = (weighIn: number | undefined) => (weighIn ? `?weigh_in=${weighIn}` : "");

const given = (asked: Record<string, string>) =>
  Object.fromEntries(Object.entries(asked).filter(([, value]) => value !== ""));

export const api = {
  rigs: () => ask<RigSummary[]>("GET", "/rigs"),
  deleted: () => ask<RigSummary[]>("GET", "/rigs?deleted=true"),
  start: (name: string, kind: Kind, mass: MassUnit, alone = false) =>
    ask<{ id: string }>("POST", "/rigs", { name, kind, mass, alone }),
  takeApart: (id: string, body: Schemas["PastedText"]) =>
    ask<Schemas["PastedAnswer"]>("POST", `/rigs/${id}/pasted`, body),
  addExamples: () => ask<{ ids: string[] }>("POST", "/examples"),
  dropExamples: () => ask<void>("DELETE", "/examples"),
  importFile: (file: Blob) => send<{ id: string }>("/rigs/import", file, "reading the file"),
  open: (id: string, weighIn?: number) => ask<Sheet>("GET", `/rigs/${id}${looking(weighIn)}`),
  change: (id: string, step: Schemas["Changes"], weighIn?: number) =>
    ask<Sheet>("PATCH", `/rigs/${id}${looking(weighIn)}`, step),
  plan: (id: string, scale: ScaleKind, uncouple: boolean) =>
    ask<Plan>("GET", `/rigs/${id}/plan?scale=${scale}&uncouple=${uncouple}`),
  newWeighIn: (id: string, scale: ScaleKind, uncouple: boolean) =>
    ask<Sheet>("POST", `/rigs/${id}/weigh-ins?scale=${scale}&uncouple=${uncouple}`),
  live: () => ask<LiveOut>("GET", "/live"),
  connect: (wanted: Schemas["Connect"]) => ask<LiveOut>("POST", "/live", wanted),
  command: (command: LiveCommand) => ask<LiveOut>("POST", "/live/command", command),
  disconnect: () => ask<LiveOut>("DELETE", "/live"),
  addItems: (id: string, jotted: Schemas["QuickItem"], weighIn?: number) =>
    ask<Sheet>("POST", `/rigs/${id}/items${looking(weighIn)}`, jotted),
  previewItems: (id: string, list: Schemas["ItemList"]) => ask<ListPreview>("POST", `/rigs/${id}/items/preview`, list),
  importItems: (id: string, list: Schemas["ItemList"], weighIn?: number) =>
    ask<Sheet>("POST", `/rigs/${id}/items/import${looking(weighIn)}`, list),
  previewTickets: (id: string, table: Schemas["TicketTable"]) =>
    ask<TablePreview>("POST", `/rigs/${id}/tickets/preview`, table),
  importTickets: (id: string, table: Schemas["TicketTable"]) =>
    ask<Schemas["TicketsImported"]>("POST", `/rigs/${id}/tickets/import`, table),
  leverLength: (id: string, moved: Schemas["Moved"]) => ask<LeverLength>("POST", `/rigs/${id}/lever-length`, moved),
  planFromWeighIn: (id: string, weighIn?: number) =>
    ask<Sheet>("POST", `/rigs/${id}/plan/from-weigh-in${looking(weighIn)}`),
  units: (id: string, units: Schemas["NewUnits"], weighIn?: number) =>
    ask<Sheet>("POST", `/rigs/${id}/units${looking(weighIn)}`, units),
  makersTable: (id: string, table: Schemas["MakersTable"], weighIn?: number) =>
    ask<Sheet>("POST", `/rigs/${id}/table${looking(weighIn)}`, table),
  visit: (id: string, scale: ScaleKind, uncouple: boolean) =>
    ask<Schemas["VisitOut"]>("GET", `/rigs/${id}/visit?scale=${scale}&uncouple=${uncouple}`),
  keepVisit: (id: string, state: VisitState) => ask<void>("PUT", `/rigs/${id}/visit`, state),
  endVisit: (id: string) => ask<void>("DELETE", `/rigs/${id}/visit`),
  photos: (id: string) => ask<Photo[]>("GET", `/rigs/${id}/photos`),
  photoAt: (id: string, photo: string, small: boolean) =>
    `/api/rigs/${id}/photos/${photo}${small ? "?small=true" : ""}`,
  dropPhoto: (id: string, photo: string) => ask<Photo[]>("DELETE", `/rigs/${id}/photos/${photo}`),
  addPhoto: async (id: string, photo: string, file: Blob, asked: Record<string, string>) => {
    const headers = { "content-type": "application/octet-stream", ...FROM_HERE };
    const path = `/rigs/${id}/photos/${photo}?${new URLSearchParams(given(asked))}`;
    return (await (await answered(path, { method: "PUT", headers, body: file })).json()) as Photo[];
  },
  drives: (id: string) => ask<Record<number, DriveNotes>>("GET", `/rigs/${id}/drives`),
  keepDrive: (id: string, number: number, notes: DriveNotes) => ask<void>("PUT", `/rigs/${id}/drives/${number}`, notes),
  fees: (id: string) => ask<string[]>("GET", `/rigs/${id}/fees`),
  lines: (id: string) => ask<OwnLine[]>("GET", `/rigs/${id}/lines`),
  addLine: (id: string, text: string, trip: boolean) => ask<OwnLine[]>("POST", `/rigs/${id}/lines`, { text, trip }),
  tickLine: (id: string, line: number, tick: Schemas["Tick"]) =>
    ask<OwnLine[]>("PUT", `/rigs/${id}/lines/${line}`, tick),
  dropLine: (id: string, line: number) => ask<OwnLine[]>("DELETE", `/rigs/${id}/lines/${line}`),
  tripOver: (id: string) => ask<OwnLine[]>("POST", `/rigs/${id}/lines/trip-over`),
  /** With `leaving`, the request outlives the page. */
  present: async (where: Schemas["Whereabouts"], leaving = false) => {
    const how = { method: "POST", headers: JSON_SENT, body: JSON.stringify(where), keepalive: leaving };
    return (await (await answered("/presence", how)).json()) as OpenPages;
  },
  jot: (id: string, ticket: JottedTicket) => ask<Sheet>("POST", `/rigs/${id}/jotted`, ticket),
  me: () => ask<Schemas["Visitor"]>("GET", "/me"),
  sharing: () => ask<ShareState>("GET", "/share"),
  share: (on: boolean) => ask<ShareState>("PUT", "/share", { on }),
  invite: (viewing: boolean, host: string | null) => ask<Invitation>("POST", "/share/invitations", { viewing, host }),
  shutOut: (id: string) => ask<ShareState>("DELETE", `/share/devices/${id}`),
  ownYard: (id: string, weighIn?: number | null) =>
    ask<Schemas["RunOut"]>("POST", `/rigs/${id}/yard${looking(weighIn ?? undefined)}`),
  words: () => ask<Words>("GET", "/words"),
  garage: () => ask<Equipment[]>("GET", "/garage"),
  couple: (wanted: Schemas["Couple"]) => ask<{ id: string }>("POST", "/garage/couple", wanted),
  copyEquipment: (id: string) => ask<{ id: string }>("POST", `/garage/${id}/copy`),
  retireEquipment: (id: string) => ask<void>("POST", `/garage/${id}/retire`),
  reviveEquipment: (id: string) => ask<void>("POST", `/garage/${id}/bring-back`),
  removeEquipment: (id: string) => ask<void>("DELETE", `/garage/${id}`),
  copyRig: (id: string, name: string, apart: EquipmentKind[]) =>
    ask<{ id: string }>("POST", `/rigs/${id}/copy`, { name, apart }),
  log: (id: string, words: string, before?: number) =>
    ask<Log>("GET", `/rigs/${id}/log?${new URLSearchParams(given({ words, before: before ? String(before) : "" }))}`),
  reminders: (id: string) => ask<Reminder[]>("GET", `/rigs/${id}/reminders`),
  chart: (id: string, until?: number) => ask<Chart>("GET", `/rigs/${id}/log/chart${until ? `?until=${until}` : ""}`),
  compareWeighIns: (id: string, numbers: number[], others: string[]) =>
    ask<Comparison>(
      "GET",
      `/rigs/${id}/log/compare?${[...numbers.map((each) => `numbers=${each}`), ...others.map((each) => `others=${each}`)].join("&")}`,
    ),
  importLogbook: (file: Blob) => send<{ added: string[]; already: number }>("/logbook", file, "reading the logbook"),
  adjust: (id: string, steps: Step[], weighIn?: number) =>
    ask<Adjustment>("POST", `/rigs/${id}/adjust${looking(weighIn)}`, { steps }),
  understandStep: (id: string, steps: Step[], typed: TypedStep, weighIn?: number) =>
    ask<Step>("POST", `/rigs/${id}/adjust/step${looking(weighIn)}`, { steps, typed }),
  propose: (id: string, steps: Step[], weighIn: number | undefined, signal: AbortSignal) =>
    ask<Proposals>("POST", `/rigs/${id}/adjust/proposals${looking(weighIn)}`, { steps }, signal),
  keepSteps: (id: string, name: string, steps: Step[], weighIn?: number) =>
    ask<Sheet>("POST", `/rigs/${id}/adjust/keep${looking(weighIn)}`, { name, steps }),
  applySteps: (id: string, steps: Step[], weighIn?: number) =>
    ask<Sheet>("POST", `/rigs/${id}/adjust/apply${looking(weighIn)}`, { steps }),
  howMuch: (id: string, asked: { start: string; added: string; share: string; weigh_in: string }) =>
    ask<HowMuch>("GET", `/rigs/${id}/how-much?${new URLSearchParams(given(asked))}`),
  match: (asked: Record<"unit" | "aboard" | "hitch" | "share" | "vehicles_from" | "trailers_from", string>) =>
    ask<Schemas["MatchTable"]>("GET", `/match?${new URLSearchParams(given(asked))}`),
  compare: (asked: Record<string, string>) =>
    ask<Schemas["PairsCompared"]>("GET", `/match/compare?${new URLSearchParams(given(asked))}`),
  brochure: (typed: Schemas["Brochure"]) => ask<{ id: string }>("POST", "/garage", typed),
  undo: (id: string, weighIn?: number) => ask<Sheet>("POST", `/rigs/${id}/undo${looking(weighIn)}`),
  redo: (id: string, weighIn?: number) => ask<Sheet>("POST", `/rigs/${id}/redo${looking(weighIn)}`),
  remove: (id: string) => ask<void>("DELETE", `/rigs/${id}`),
  bringBack: (id: string) => ask<void>("POST", `/rigs/${id}/bring-back`),
};
