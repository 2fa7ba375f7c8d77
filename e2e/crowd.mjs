// One coach asks for 600 searches at once; every page of another coach is timed meanwhile.
//   node crowd.mjs [SEARCHES]
import { spawn } from "node:child_process";
import { isMainThread, parentPort, Worker, workerData } from "node:worker_threads";

const BINARY = process.env.ORTHOMER ?? "../target/quick/orthomer";
const SEARCHES = Number(process.argv[2] ?? 600);
const PORT = 8176;
const ADDRESS = `http://127.0.0.1:${PORT}/api/v1`;

async function signedIn(login, password) {
  const body = JSON.stringify({ login, password });
  const signed = await fetch(`${ADDRESS}/session`, { method: "POST", body, headers: { "Content-Type": "application/json" } });
  const cookie = signed.headers.getSetCookie().map((set) => set.split(";")[0]).join("; ");
  return (path, init = {}) =>
    fetch(`${ADDRESS}${path}`, { ...init, headers: { cookie, "Content-Type": "application/json" } });
}

/** The searches are asked for by a thread of their own: what is timed is the server, not this program. */
async function search({ round, week, login, password }) {
  const jo = await signedIn(login, password);
  const tally = {};
  const one = async (_, seed) => {
    const answer = await jo(`/rounds/${round}/plan/solve`, { method: "POST", body: JSON.stringify({ week, seed }) });
    await answer.text();
    tally[answer.status] = (tally[answer.status] ?? 0) + 1;
  };
  await Promise.all(Array.from({ length: SEARCHES }, one));
  return tally;
}

async function measure() {
const server = spawn(BINARY, ["demo", "--no-pictures", "--port", String(PORT)], { stdio: "ignore" });
try {
  while (!(await fetch(`${ADDRESS}/health`).catch(() => undefined))?.ok) await new Promise((wait) => setTimeout(wait, 20));
  const mara = await signedIn("mara", "plumb-line-demo");
  const person = { name: "Jo", login: "jo", password: "plumb-line-crowd", role: "coach" };
  await mara("/practice/people", { method: "POST", body: JSON.stringify(person) });
  const get = async (path) => (await mara(path)).json();
  const client = (await get("/clients?find=Oda")).items[0].id;
  const round = (await get(`/clients/${client}`)).rounds[0].id;
  const { week } = await get(`/rounds/${round}/plan`);
  const pages = ["/today", "/clients", `/clients/${client}`, ...["", "/verdict", "/tape", "/plan", "/photos", "/review", "/tests"].map((step) => `/rounds/${round}${step}`), "/practice", "/practice/measurers"];
  for (const page of pages) await (await mara(page)).text();
  let tally;
  const asking = new Worker(new URL(import.meta.url), { workerData: { round, week, ...person } });
  asking.once("message", (told) => (tally = told));
  const times = [];
  for (let at = 0; !tally; at++) {
    const page = pages[at % pages.length];
    const began = performance.now();
    await (await mara(page)).text();
    times.push({ page, ms: performance.now() - began });
    await new Promise((wait) => setTimeout(wait, 10));
  }
  times.sort((a, b) => a.ms - b.ms);
  const at = (share) => times[Math.min(times.length - 1, Math.floor(share * times.length))].ms.toFixed(0);
  console.log(`searches answered: ${JSON.stringify(tally)}`);
  console.log(`another coach's ${times.length} pages: median ${at(0.5)} ms, 95 % ${at(0.95)} ms, worst ${at(1)} ms (${times.at(-1).page})`);
} finally {
  server.kill("SIGKILL");
}
}

if (isMainThread) await measure();
else parentPort.postMessage(await search(workerData));
