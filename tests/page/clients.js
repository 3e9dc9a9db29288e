// Two clients of one rig, each with the page's own line, over a network that loses, repeats and delays answers.
// `script` says what they do; the answer is what they did, what was acknowledged and what stands aside.
async (rig, script) => {
  const { Line } = window.own;
  const pause = (ms) => new Promise((go) => setTimeout(go, ms));
  const done = { typed: [], inserted: [], tickets: [], undone: false, restored: false };
  let serial = 0;
  const identity = () => `k${(serial += 1)}x${Math.random().toString(36).slice(2, 8)}`;
  const call = async (method, path, body, headers = {}) => {
    const sent = { "content-type": "application/json", ...headers };
    const answer = await fetch(`/api/rigs/${rig}${path}`, { method, headers: sent, body: body && JSON.stringify(body) });
    const found = await answer.json();
    if (!answer.ok) throw { status: answer.status, code: found.code, message: found.detail, paths: found.errors.map((e) => e.path) };
    return found;
  };
  /** What the server took, by the count of its edits: an answer that is lost was still an answer. */
  const taken = new Map();
  const request = async (entry) => {
    const sheet = await ask(entry);
    if (entry.changes && !taken.has(entry.key)) taken.set(entry.key, [sheet.edits, entry.changes.map((c) => [c.path, c.text ?? c.op])]);
    return sheet;
  };
  const ask = (entry) => {
    const { key, changes, says, gesture, seen, epoch, overrules, client } = entry;
    if (entry.kind === "ticket") return call("POST", "/jotted", entry.ticket);
    if (entry.kind === "asked") return entry.make(key);
    const body = { changes, what: says, gesture, seen, epoch, overrules, by: client };
    return call("PATCH", "", body, { "x-noxel-key": key, "x-noxel-page": client });
  };
  const open = (name, kept) => {
    const client = { page: `${name}-${(serial += 1)}`, kept, modes: [], sheet: null };
    const send = async (entry) => {
      const mode = client.modes.shift();
      if (mode === "unsent") throw { message: "no answer" };
      if (mode === "shut out") throw { message: "shut out", status: 401, code: "x" };
      if (mode === "twice") await request(entry).catch(() => {});
      const sheet = await request(entry);
      if (mode === "late") await pause(4);
      if (mode === "lost") throw { message: "no answer" };
      return { rig, sheet };
    };
    client.line = new Line({
      page: client.page,
      looking: () => undefined,
      send,
      failure: (error) => (error.message ? error : { message: String(error), status: 500 }),
      keep: async (entry) => void kept.set(entry.key, structuredClone({ ...entry, page: client.page })),
      drop: async (key) => void kept.delete(key),
      later: (act) => { const due = setTimeout(act, 1); return () => clearTimeout(due); },
      newKey: () => crypto.randomUUID(),
      now: Date.now,
    });
    client.line.onAnswer((brought) => { client.sheet = brought.sheet; });
    client.line.adopt([...kept.values()]);
    return client;
  };
  const clients = [open("a", new Map()), open("b", new Map())];
  const look = async (client) => { client.sheet = await call("GET", ""); };
  for (const client of clients) await look(client);
  const push = (client, says, change, gesture) => {
    const { edits, epoch } = client.sheet;
    client.line.type(rig, says, { changes: [change], gesture, seen: edits, epoch, outer: {} });
  };
  for (const [who, act, which, text, pace] of script) {
    const client = clients[who];
    const loads = client.sheet.rig.loads ?? [];
    const load = loads.length ? loads[which % loads.length] : null;
    if (act === "type" && load) {
      const gesture = crypto.randomUUID();
      done.typed.push([load.id, text, who]);
      for (let end = 1; end <= text.length; end += 1) {
        push(client, "mass", { path: `loads[${load.id}].mass`, text: text.slice(0, end), op: "type" }, gesture);
        await pause(pace);
      }
    } else if (act === "insert") {
      const id = identity();
      done.inserted.push([id, text]);
      push(client, "put in", { path: "loads", op: "insert", value: { id, name: text, on: "vehicle", mass: 1 } }, null);
    } else if (act === "remove" && load) {
      push(client, "take out", { path: `loads[${load.id}]`, op: "remove" }, null);
    } else if (act === "move" && load) {
      push(client, "move", { path: `loads[${load.id}].on`, op: "set", value: load.on === "vehicle" ? "trailer" : "vehicle" }, null);
    } else if (act === "undo" || act === "redo") {
      done.undone = true;
      const made = (key) => call("POST", `/${act}`, undefined, { "x-noxel-key": key, "x-noxel-page": client.page });
      client.line.ask(rig, made, undefined).catch(() => {});
    } else if (act === "ticket") {
      const ticket = { key: text, visit: `v${which % 2}`, day: "2026-05-02", config: "vehicle_only", unit: "lb", readings: { front: "3000" }, ticket_number: text };
      done.tickets.push(text);
      void client.line.add(rig, "ticket", { kind: "ticket", ticket }, text);
    } else if (act === "look") {
      await look(client);
    } else if (act === "network") {
      client.modes.push(...Array(1 + (which % 3)).fill(text));
    } else if (act === "reload") {
      client.line.taken = () => {}; // what is under way is answered to nobody
      client.line.go = async () => {};
      const { sheet } = client;
      clients[who] = Object.assign(open("ab"[who], client.kept), { sheet });
    } else if (act === "restore") {
      done.restored = true;
      await window.restore();
    } else if (act === "backup") {
      await window.backUp();
    }
    await pause(pace);
  }
  for (const client of clients) client.modes = [];
  for (let turn = 0; turn < 2000 && clients.some(({ line }) => line.state.saving.state !== "saved"); turn += 1) {
    for (const { line } of clients) if (line.state.saving.state === "waiting") line.retry();
    await pause(1);
  }
  const aside = clients.flatMap(({ line }) => line.state.aside);
  return {
    ...done,
    acknowledged: [...taken.values()].sort((one, other) => one[0] - other[0]).flatMap((each) => each[1]),
    waiting: clients.flatMap(({ line }) => line.state.waiting).length,
    aside: aside.map((each) => [each.kind, each.refused.code, (each.changes ?? []).map((c) => [c.path, c.text ?? c.op]), each.key]),
    rig: (await call("GET", "")).rig,
  };
}
