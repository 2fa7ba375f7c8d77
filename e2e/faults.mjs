// The program is killed in the middle of every kind of write: what was acknowledged is there, the practice is whole, and what was
// not acknowledged is there whole or not at all.
//   node faults.mjs [FAULTS]
import { execFileSync, spawn, spawnSync } from "node:child_process";
import { randomUUID } from "node:crypto";
import { existsSync, mkdtempSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const BINARY = process.env.ORTHOMER ?? "../target/quick/orthomer";
const FAULTS = Number(process.argv[2] ?? 220);
const PORT = 8175;
const ADDRESS = `http://127.0.0.1:${PORT}`;
/** A kill comes within so long of the write's beginning: about twice what it takes. */
const WITHIN_MS = { picture: 1500, import: 300, erase: 150, backup: 150, restore: 150, export: 150 };
const USUALLY_MS = 40;

const directory = mkdtempSync(join(tmpdir(), "orthomer-faults-"));
const data = join(directory, "practice");
const file = (name) => join(directory, name);
let headers = {};
let server;

const ask = (path, init = {}) => fetch(`${ADDRESS}/api/v1${path}`, { ...init, headers: { ...headers, ...init.headers } });
const get = async (path) => (await ask(path)).json();
const json = (method, path, body) =>
  ask(path, { method, body: JSON.stringify(body), headers: { "Content-Type": "application/json" } });

async function start(...args) {
  server = spawn(BINARY, [...args, "--data", data, "--port", String(PORT)], { stdio: "ignore" });
  for (;;) {
    const health = await fetch(`${ADDRESS}/api/v1/health`).catch(() => undefined);
    if (health?.ok) return;
    await new Promise((wait) => setTimeout(wait, 15));
  }
}

async function kill() {
  const ended = new Promise((over) => server.once("exit", over));
  server.kill("SIGKILL");
  await ended;
}

const command = (...args) => spawn(BINARY, args, { stdio: "ignore" });

/** Each kind of write: begins it and gives a promise of whether it was acknowledged, and how to see that it is there. */
function kinds({ client, round, week, spare }) {
  let number = 0;
  const page = async (path, of) => of(await get(path));
  return {
    tape: async () => {
      const sheet = await get(`/rounds/${round}/tape`);
      const cm = 30 + (number++ % 90) / 10;
      const body = { revision: sheet.revision, measured_by: "ME", entries: [{ site: "neck", readings_cm: [cm] }], folds: [], levels_cm: {} };
      const there = () => page(`/rounds/${round}/tape`, (now) => now.entries.some((entry) => entry.readings_cm.includes(cm)));
      return { sent: json("PUT", `/rounds/${round}/tape`, body), there };
    },
    brief: async () => {
      const { revision, brief } = await get(`/clients/${client}`);
      const name = `Oda Fenwick ${number++}`;
      const there = () => page(`/clients/${client}`, (now) => now.brief.name === name);
      return { sent: json("PUT", `/clients/${client}`, { revision, brief: { ...brief, name } }), there };
    },
    log: async () => {
      const [session] = week.sessions;
      const [{ item }] = session.items;
      const id = randomUUID();
      const sets = [{ number: 1, load_kg: 20, ...(item.seconds ? { seconds: 30 } : { reps: 10 }) }];
      const part = { kind: "exercise", exercise: item.exercise, position: item.order, scheme: item.scheme, sets };
      const at = new Date().toISOString();
      const entry = { id, follows: [], plan: week.plan.id, week: 100 + (number++ % 100), day: session.day, trained_on: week.today, at, part };
      const there = async () => (await (await ask("/practice/tables/log_entry")).text()).includes(id);
      return { sent: json("POST", `/clients/${client}/log`, { sent_at: at, entries: [entry] }), there };
    },
    rating: async () => {
      const value = (number++ % 5) - 2;
      const rating = { region: "calves.gastrocnemius", pose: "B", kind: "standing", value };
      const mine = ({ round_id, region, pose, kind }) =>
        round_id === round && region === rating.region && pose === "B" && kind === "standing";
      const there = () => page(`/rounds/${round}/photos`, ({ ratings }) => ratings.find(mine)?.value === value);
      return { sent: json("PUT", `/rounds/${round}/ratings`, rating), there };
    },
    link: async () => {
      const before = (await get(`/clients/${spare}/links`)).length;
      const there = () => page(`/clients/${spare}/links`, (links) => links.length > before);
      return { sent: json("POST", `/clients/${spare}/links`, { days: 3 }), there };
    },
    picture: async () => {
      const count = () => page(`/rounds/${round}/photos`, ({ rounds }) => rounds.flatMap(({ photos }) => photos).length);
      const before = await count();
      const there = async () => (await count()) > before;
      return { sent: ask(`/rounds/${round}/booth?pose=B`, { method: "POST" }), there };
    },
    away: async () => {
      const { put_away_on } = await get(`/clients/${spare}`);
      const there = () => page(`/clients/${spare}`, (now) => !!now.put_away_on !== !!put_away_on);
      return { sent: json("PUT", `/clients/${spare}/away`, { away: !put_away_on }), there };
    },
    erase: async () => {
      if (!(await ask(`/clients/${spare}`)).ok) execFileSync(BINARY, ["import", file("spare.zip"), "--data", data]);
      const there = async () => (await ask(`/clients/${spare}`)).status === 404;
      return { sent: ask(`/clients/${spare}`, { method: "DELETE" }), there };
    },
    import: async () => {
      if ((await ask(`/clients/${spare}`)).ok) await ask(`/clients/${spare}`, { method: "DELETE" });
      const there = async () => (await ask(`/clients/${spare}`)).ok;
      return { sent: ask("/clients/archive", { method: "POST", body: readFileSync(file("spare.zip")) }), there };
    },
  };
}

/** Commands beside the server, which are killed themselves. */
const COMMANDS = {
  backup: () => {
    rmSync(file("backup.zip"), { force: true });
    return { child: command("backup", file("backup.zip"), "--data", data), holds: () => existsSync(file("backup.zip")) && restored(file("backup.zip")) };
  },
  restore: () => {
    rmSync(file("copy"), { recursive: true, force: true });
    return { child: command("restore", file("whole.zip"), "--data", file("copy")), holds: () => existsSync(file("copy")) && whole(file("copy")) };
  },
  export: () => {
    rmSync(file("out.zip"), { force: true });
    return { child: command("export", "--client", COMMANDS.client, "--out", file("out.zip"), "--data", data), holds: () => existsSync(file("out.zip")) };
  },
};

const whole = (of) => spawnSync(BINARY, ["check", "--data", of]).status === 0;

function restored(backup) {
  const copy = file("tried");
  rmSync(copy, { recursive: true, force: true });
  return spawnSync(BINARY, ["restore", backup, "--data", copy]).status === 0;
}

async function signedIn() {
  const body = JSON.stringify({ login: "mara", password: "plumb-line-demo" });
  const signed = await fetch(`${ADDRESS}/api/v1/session`, { method: "POST", body, headers: { "Content-Type": "application/json" } });
  headers = { cookie: signed.headers.getSetCookie().map((set) => set.split(";")[0]).join("; ") };
}

const tally = {};
try {
  await start("demo", "--no-pictures");
  await signedIn();
  const id = async (name) => (await get(`/clients?find=${name}`)).items[0].id;
  const client = await id("Oda");
  const spare = await id("Juno");
  COMMANDS.client = spare;
  const round = (await get(`/clients/${client}`)).rounds[0].id;
  const week = await get(`/clients/${client}/week`);
  execFileSync(BINARY, ["export", "--client", spare, "--out", file("spare.zip"), "--data", data]);
  execFileSync(BINARY, ["backup", file("whole.zip"), "--data", data]);
  const writes = kinds({ client, round, week, spare });
  const names = [...Object.keys(writes), ...Object.keys(COMMANDS).filter((name) => name !== "client")];
  for (let fault = 0; fault < FAULTS; fault++) {
    const name = names[fault % names.length];
    tally[name] ??= { kills: 0, acknowledged: 0, lost: 0, broken: 0 };
    const after = Math.random() * (WITHIN_MS[name] ?? USUALLY_MS);
    tally[name].kills++;
    if (writes[name]) {
      const { sent, there } = await writes[name]();
      const answered = sent.then((answer) => answer.ok, () => false);
      await new Promise((wait) => setTimeout(wait, after));
      await kill();
      const acknowledged = await answered;
      await start("serve");
      if (acknowledged) tally[name].acknowledged++;
      if (acknowledged && !(await there())) tally[name].lost++;
    } else {
      const { child, holds } = COMMANDS[name]();
      const ended = new Promise((over) => child.once("exit", over));
      await new Promise((wait) => setTimeout(wait, after));
      child.kill("SIGKILL");
      const done = (await ended) === 0;
      if (done) tally[name].acknowledged++;
      if (done && !holds()) tally[name].lost++;
    }
    if (!whole(data)) tally[name].broken++;
  }
} finally {
  server?.kill("SIGKILL");
  rmSync(directory, { recursive: true, force: true });
}
console.log("| write | kills | acknowledged before | of those lost | practice broken |\n| --- | --- | --- | --- | --- |");
for (const [name, { kills, acknowledged, lost, broken }] of Object.entries(tally))
  console.log(`| ${name} | ${kills} | ${acknowledged} | ${lost} | ${broken} |`);
const bad = Object.values(tally).reduce((sum, { lost, broken }) => sum + lost + broken, 0);
process.exit(bad ? 1 : 0);
