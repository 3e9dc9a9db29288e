import type * as types from "../../generated/api";
import type { paths } from "../../generated/api";
import { answered, FROM_HERE, got, send, server } from "./http";

export type * from "../../generated/api";
export { download, got, PAGE, RequestFailed, server } from "./http";

export type Status = types.Check["status"];
export type Outlook = NonNullable<types.Check["expected"]>["outlook"];
export type WorkLine = types.Line;
export type Source = NonNullable<types.Entry["source"]>;
export type Plan = types.PassPlan;
export type ScaleKind = types.ScaleOffer["kind"];
export type LiveCommand = types.Command;
export type Fault = types.LiveOut["fault"];
export type Category = NonNullable<types.Load["category"]>;
export type Phase = NonNullable<types.Plan["phase"]>;
export type Kind = types.RigFile["kind"];
export type Adjustment = types.OnTheBench;
export type Door = paths["/api/rigs/{rig_id}/path"]["get"]["parameters"]["query"]["door"];
export type MatchCell = types.Cell;
export type Equipment = types.EquipmentOut;
export type EquipmentKind = Equipment["kind"];
export type ReadFigure = types.FigureOut;
export type Photo = types.PhotoOut;
export type PairedDevice = types.DeviceOut;
export type MassUnit = "lb" | "kg";
export type TermSet = types.NewRig["terms"] & string;
/** Texts as they were typed, without those left blank; the server reads them. */
type Asked<P extends keyof paths> = paths[P] extends { get: { parameters: { query?: infer Q } } } ? Q : never;
const filled = (asked: Record<string, string>) =>
  Object.fromEntries(Object.entries(asked).filter(([, value]) => value !== ""));
const given = <P extends keyof paths>(asked: Record<string, string>) => filled(asked) as unknown as Asked<P>;

/** One rig, and the weigh-in that is looked at. */
const of = (rig_id: string) => ({ path: { rig_id } });
const at = (rig_id: string, weigh_in?: number | null) => ({ path: { rig_id }, query: weigh_in ? { weigh_in } : {} });

/** The key of a change, made where it was typed: the server takes it once, however often it is sent. */
const keyed = (key: string) => ({ "x-noxel-key": key });

export const api = {
  rigs: () => got(server.GET("/api/rigs")),
  deleted: () => got(server.GET("/api/rigs", { params: { query: { deleted: true } } })),
  start: (name: string, kind: Kind, mass: MassUnit, terms: TermSet, alone = false) =>
    got(server.POST("/api/rigs", { body: { name, kind, mass, terms, alone } })),
  takeApart: (id: string, body: types.PastedText) =>
    got(server.POST("/api/rigs/{rig_id}/pasted", { params: of(id), body })),
  reads: () => got(server.GET("/api/reads")),
  readPhoto: (id: string, photo: string, body: types.AskedOf) =>
    got(server.POST("/api/rigs/{rig_id}/photos/{photo}/read", { params: { path: { rig_id: id, photo } }, body })),
  example: () => got(server.GET("/api/example", {})),
  addExamples: () => got(server.POST("/api/examples")),
  dropExamples: () => got(server.DELETE("/api/examples")),
  importFile: (file: Blob) => send<{ id: string }>("/api/rigs/import", file, "reading the file"),
  open: (id: string, weighIn?: number) => got(server.GET("/api/rigs/{rig_id}", { params: at(id, weighIn) })),
  change: (id: string, body: types.Changes, key: string, weighIn?: number) =>
    got(server.PATCH("/api/rigs/{rig_id}", { params: at(id, weighIn), headers: keyed(key), body })),
  plan: (id: string, scale: ScaleKind, uncouple: boolean) =>
    got(server.GET("/api/rigs/{rig_id}/plan", { params: { ...of(id), query: { scale, uncouple } } })),
  newWeighIn: (id: string, scale: ScaleKind, uncouple: boolean, key: string) =>
    got(
      server.POST("/api/rigs/{rig_id}/weigh-ins", {
        params: { ...of(id), query: { scale, uncouple } },
        headers: keyed(key),
      }),
    ),
  live: () => got(server.GET("/api/live")),
  connect: (body: types.Connect) => got(server.POST("/api/live", { body })),
  command: (body: LiveCommand) => got(server.POST("/api/live/command", { body })),
  disconnect: () => got(server.DELETE("/api/live")),
  addItems: (id: string, body: types.QuickItem, key: string, weighIn?: number) =>
    got(server.POST("/api/rigs/{rig_id}/items", { params: at(id, weighIn), headers: keyed(key), body })),
  previewItems: (id: string, body: types.ItemList) =>
    got(server.POST("/api/rigs/{rig_id}/items/preview", { params: of(id), body })),
  importItems: (id: string, body: types.ItemList, key: string, weighIn?: number) =>
    got(server.POST("/api/rigs/{rig_id}/items/import", { params: at(id, weighIn), headers: keyed(key), body })),
  previewTickets: (id: string, body: types.TicketTable) =>
    got(server.POST("/api/rigs/{rig_id}/tickets/preview", { params: of(id), body })),
  importTickets: (id: string, body: types.TicketTable) =>
    got(server.POST("/api/rigs/{rig_id}/tickets/import", { params: of(id), body })),
  leverLength: (id: string, body: types.Moved) =>
    got(server.POST("/api/rigs/{rig_id}/lever-length", { params: of(id), body })),
  planFromWeighIn: (id: string, key: string, weighIn?: number) =>
    got(server.POST("/api/rigs/{rig_id}/plan/from-weigh-in", { params: at(id, weighIn), headers: keyed(key) })),
  units: (id: string, body: types.NewUnits, key: string, weighIn?: number) =>
    got(server.POST("/api/rigs/{rig_id}/units", { params: at(id, weighIn), headers: keyed(key), body })),
  makersTable: (id: string, body: types.MakersTable, key: string, weighIn?: number) =>
    got(server.POST("/api/rigs/{rig_id}/table", { params: at(id, weighIn), headers: keyed(key), body })),
  visit: (id: string, scale: ScaleKind, uncouple: boolean) =>
    got(server.GET("/api/rigs/{rig_id}/visit", { params: { ...of(id), query: { scale, uncouple } } })),
  keepVisit: (id: string, body: types.VisitState) =>
    got(server.PUT("/api/rigs/{rig_id}/visit", { params: of(id), body })),
  endVisit: (id: string) => got(server.DELETE("/api/rigs/{rig_id}/visit", { params: of(id) })),
  photos: (id: string) => got(server.GET("/api/rigs/{rig_id}/photos", { params: of(id) })),
  photoAt: (id: string, photo: string, small: boolean) =>
    `/api/rigs/${id}/photos/${photo}${small ? "?small=true" : ""}`,
  dropPhoto: (id: string, photo: string) =>
    got(server.DELETE("/api/rigs/{rig_id}/photos/{photo}", { params: { path: { rig_id: id, photo } } })),
  addPhoto: async (id: string, photo: string, file: Blob, asked: Record<string, string>) => {
    const headers = { "content-type": "application/octet-stream", ...FROM_HERE };
    const path = `/api/rigs/${id}/photos/${photo}?${new URLSearchParams(filled(asked))}`;
    return (await (await answered(path, { method: "PUT", headers, body: file })).json()) as Photo[];
  },
  drives: (id: string) => got(server.GET("/api/rigs/{rig_id}/drives", { params: of(id) })),
  keepDrive: (id: string, weigh_in: string, body: types.DriveNotes) =>
    got(server.PUT("/api/rigs/{rig_id}/drives/{weigh_in}", { params: { path: { rig_id: id, weigh_in } }, body })),
  fees: (id: string) => got(server.GET("/api/rigs/{rig_id}/fees", { params: of(id) })),
  lines: (id: string) => got(server.GET("/api/rigs/{rig_id}/lines", { params: of(id) })),
  addLine: (id: string, text: string, trip: boolean, key: string) =>
    got(server.POST("/api/rigs/{rig_id}/lines", { params: of(id), headers: keyed(key), body: { text, trip } })),
  tickLine: (id: string, line: number, body: types.Tick) =>
    got(server.PUT("/api/rigs/{rig_id}/lines/{line}", { params: { path: { rig_id: id, line } }, body })),
  dropLine: (id: string, line: number) =>
    got(server.DELETE("/api/rigs/{rig_id}/lines/{line}", { params: { path: { rig_id: id, line } } })),
  tripOver: (id: string) => got(server.POST("/api/rigs/{rig_id}/lines/trip-over", { params: of(id) })),
  /** With `leaving`, the request outlives the page. */
  present: (body: types.Whereabouts, leaving = false) =>
    got(server.POST("/api/presence", { body, keepalive: leaving })),
  jot: (id: string, body: types.JottedTicket) =>
    got(server.POST("/api/rigs/{rig_id}/jotted", { params: of(id), body })),
  me: () => got(server.GET("/api/me")),
  sharing: () => got(server.GET("/api/share")),
  share: (on: boolean) => got(server.PUT("/api/share", { body: { on } })),
  invite: (viewing: boolean, host: string | null) =>
    got(server.POST("/api/share/invitations", { body: { viewing, host } })),
  shutOut: (device: string) => got(server.DELETE("/api/share/devices/{device}", { params: { path: { device } } })),
  ownYard: (id: string, weighIn?: number | null) =>
    got(server.POST("/api/rigs/{rig_id}/yard", { params: at(id, weighIn) })),
  words: () => got(server.GET("/api/words")),
  garage: () => got(server.GET("/api/garage")),
  couple: (body: types.Couple) => got(server.POST("/api/garage/couple", { body })),
  copyEquipment: (equipment: string) =>
    got(server.POST("/api/garage/{equipment}/copy", { params: { path: { equipment } } })),
  retireEquipment: (equipment: string) =>
    got(server.POST("/api/garage/{equipment}/retire", { params: { path: { equipment } } })),
  reviveEquipment: (equipment: string) =>
    got(server.POST("/api/garage/{equipment}/bring-back", { params: { path: { equipment } } })),
  removeEquipment: (equipment: string) =>
    got(server.DELETE("/api/garage/{equipment}", { params: { path: { equipment } } })),
  copyRig: (id: string, name: string, apart: EquipmentKind[]) =>
    got(server.POST("/api/rigs/{rig_id}/copy", { params: of(id), body: { name, apart } })),
  log: (id: string, words: string, before?: number) =>
    got(
      server.GET("/api/rigs/{rig_id}/log", {
        params: { ...of(id), query: { ...(words ? { words } : {}), ...(before ? { before } : {}) } },
      }),
    ),
  reminders: (id: string) => got(server.GET("/api/rigs/{rig_id}/reminders", { params: of(id) })),
  chart: (id: string, until?: number) =>
    got(server.GET("/api/rigs/{rig_id}/log/chart", { params: { ...of(id), query: until ? { until } : {} } })),
  compareWeighIns: (id: string, numbers: number[], others: string[]) =>
    got(server.GET("/api/rigs/{rig_id}/log/compare", { params: { ...of(id), query: { numbers, others } } })),
  importLogbook: (file: Blob) =>
    send<{ added: string[]; already: number }>("/api/logbook", file, "reading the logbook"),
  adjust: (id: string, steps: types.Step[], weighIn?: number) =>
    got(server.POST("/api/rigs/{rig_id}/adjust", { params: at(id, weighIn), body: { steps } })),
  understandStep: (id: string, steps: types.Step[], typed: types.TypedStep, weighIn?: number) =>
    got(server.POST("/api/rigs/{rig_id}/adjust/step", { params: at(id, weighIn), body: { steps, typed } })),
  propose: (id: string, steps: types.Step[], weighIn: number | undefined, signal: AbortSignal) =>
    got(server.POST("/api/rigs/{rig_id}/adjust/proposals", { params: at(id, weighIn), body: { steps }, signal })),
  keepSteps: (id: string, body: types.KeepSteps, key: string, weighIn?: number) =>
    got(server.POST("/api/rigs/{rig_id}/adjust/keep", { params: at(id, weighIn), headers: keyed(key), body })),
  applySteps: (id: string, body: types.Steps, key: string, weighIn?: number) =>
    got(server.POST("/api/rigs/{rig_id}/adjust/apply", { params: at(id, weighIn), headers: keyed(key), body })),
  howMuch: (id: string, asked: { start: string; added: string; share: string; weigh_in: string }) =>
    got(
      server.GET("/api/rigs/{rig_id}/how-much", {
        params: { ...of(id), query: given<"/api/rigs/{rig_id}/how-much">(asked) },
      }),
    ),
  path: (id: string, door: Door) =>
    got(server.GET("/api/rigs/{rig_id}/path", { params: { ...of(id), query: { door } } })),
  canTow: (id: string, weighIn?: number) => got(server.GET("/api/rigs/{rig_id}/can-tow", { params: at(id, weighIn) })),
  match: (asked: Record<"unit" | "aboard" | "hitch" | "share" | "vehicles_from" | "trailers_from", string>) =>
    got(server.GET("/api/match", { params: { query: given<"/api/match">(asked) } })),
  compare: (asked: Record<string, string>) =>
    got(server.GET("/api/match/compare", { params: { query: given<"/api/match/compare">(asked) } })),
  brochure: (body: types.Brochure) => got(server.POST("/api/garage", { body })),
  undo: (id: string, key: string, weighIn?: number) =>
    got(server.POST("/api/rigs/{rig_id}/undo", { params: at(id, weighIn), headers: keyed(key) })),
  redo: (id: string, key: string, weighIn?: number) =>
    got(server.POST("/api/rigs/{rig_id}/redo", { params: at(id, weighIn), headers: keyed(key) })),
  remove: (id: string) => got(server.DELETE("/api/rigs/{rig_id}", { params: of(id) })),
  bringBack: (id: string) => got(server.POST("/api/rigs/{rig_id}/bring-back", { params: of(id) })),
};
