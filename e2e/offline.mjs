// A phone that comes back with a thousand entries while the server is killed twice: everything arrives, nothing twice.
//   node offline.mjs
import { spawn } from "node:child_process";
import { randomUUID } from "node:crypto";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathToFileURL } from "node:url";

const ENTRIES = 1000;
/** As the phone does (web/src/features/log/useLog.ts). */
const AT_ONCE = 100;
/** After so many sendings the server is killed in the middle of the next. */
const KILLED_AFTER = [2, 6];

async function answers(address) {
  for (;;) {
    const health = await fetch(`${address}/api/v1/health`).catch(() => undefined);
    if (health?.ok) return;
    await new Promise((wait) => setTimeout(wait, 20));
  }
}

/** Entries a phone might bring: every set is a version that follows the one before. */
function written(week) {
  const entries = [];
  for (let number = 1; entries.length < ENTRIES; number++) {
    for (const session of week.sessions) {
      for (const { item } of session.items) {
        const sets = [];
        let follows = [];
        for (let set = 1; set <= 3 && entries.length < ENTRIES; set++) {
          sets.push({ number: set, load_kg: 20, ...(item.seconds ? { seconds: 30 } : { reps: 10 }) });
          const id = randomUUID();
          const part = { kind: "exercise", exercise: item.exercise, position: item.order, scheme: item.scheme, sets: [...sets] };
          const at = new Date().toISOString();
          entries.push({ id, follows, plan: week.plan.id, week: 100 + number, day: session.day, trained_on: week.today, at, part });
          follows = [id];
        }
      }
    }
  }
  return entries;
}

/** Gives the seconds it took, how many of the entries are there, and how many of them twice. */
export async function comeBack(binary, port) {
  const data = join(mkdtempSync(join(tmpdir(), "orthomer-offline-")), "practice");
  const address = `http://127.0.0.1:${port}`;
  const start = (...args) => spawn(binary, [...args, "--data", data, "--port", String(port)], { stdio: "ignore" });
  let server = start("demo", "--no-pictures");
  try {
    await answers(address);
    const login = JSON.stringify({ login: "mara", password: "plumb-line-demo" });
    const signed = await fetch(`${address}/api/v1/session`, { method: "POST", body: login, headers: { "Content-Type": "application/json" } });
    const headers = { cookie: signed.headers.getSetCookie().map((set) => set.split(";")[0]).join("; "), "Content-Type": "application/json" };
    const get = async (path) => (await fetch(`${address}/api/v1${path}`, { headers })).json();
    const client = (await get("/clients?find=Oda")).items[0].id;
    const entries = written(await get(`/clients/${client}/week`));
    const began = performance.now();
    let sendings = 0;
    for (let from = 0; from < entries.length; ) {
      const batch = entries.slice(from, from + AT_ONCE);
      const body = JSON.stringify({ sent_at: new Date().toISOString(), entries: batch });
      const sent = fetch(`${address}/api/v1/clients/${client}/log`, { method: "POST", headers, body }).catch(() => undefined);
      if (KILLED_AFTER.includes(sendings)) {
        setTimeout(() => server.kill("SIGKILL"), 5);
        await new Promise((ended) => server.once("exit", ended));
        server = start("serve");
      }
      sendings += 1;
      const answer = await sent;
      if (answer?.ok) {
        const { outcomes } = await answer.json();
        if (outcomes.some(({ fate }) => fate === "refused")) throw new Error(JSON.stringify(outcomes[0]));
        from += batch.length;
      } else await answers(address);
    }
    const seconds = (performance.now() - began) / 1000;
    const csv = await (await fetch(`${address}/api/v1/practice/tables/log_entry`, { headers })).text();
    const count = (id) => csv.split(`\n`).filter((line) => line.split(",")[1] === id).length;
    const counts = entries.map(({ id }) => count(id));
    return { seconds, kept: counts.filter((times) => times > 0).length, twice: counts.filter((times) => times > 1).length };
  } finally {
    server.kill("SIGKILL");
    rmSync(join(data, ".."), { recursive: true, force: true });
  }
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? "").href) {
  const binary = process.env.ORTHOMER ?? "../target/quick/orthomer";
  const { seconds, kept, twice } = await comeBack(binary, 8162);
  console.log(`${kept} of ${ENTRIES} entries there, ${twice} twice, after ${seconds.toFixed(2)} s with two kills`);
}
