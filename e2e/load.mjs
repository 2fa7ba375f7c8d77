// The server under load: every list and page with 20 readers at once beside 2 writers, against a bare handler that does one
// indexed query in the same run.
//   node load.mjs [DATA] [SECONDS]
// DATA is a practice made with `orthomer demo --clients 200 --data DATA`; it is made when it is not there.
import { spawn } from "node:child_process";
import { existsSync, statSync } from "node:fs";
import { Agent, request } from "node:http";
import { randomUUID } from "node:crypto";

const BINARY = process.env.ORTHOMER ?? "../target/quick/orthomer";
const BARE = process.env.BARE ?? "../target/quick/examples/bare";
const DATA = process.argv[2] ?? "../target/load";
const SECONDS = Number(process.argv[3] ?? 6);
const [PORT, BARE_PORT] = [8160, 8161];
const READERS = 20;
const WRITERS = 2;
/** A writer logs a set, then waits for so long. */
const WRITE_EVERY_MS = 250;

const agent = new Agent({ keepAlive: true, maxSockets: 64 });

function ask(port, path, { method = "GET", body, headers = {}, again = false } = {}) {
  return new Promise((resolve, reject) => {
    const text = body && JSON.stringify(body);
    const started = performance.now();
    const sent = request(
      { agent, port, path, method, headers: { ...headers, ...(text && { "Content-Type": "application/json", "Content-Length": Buffer.byteLength(text) }) } },
      (answer) => {
        const parts = [];
        answer.on("data", (part) => parts.push(part));
        answer.on("end", () =>
          resolve({
            status: answer.statusCode,
            headers: answer.headers,
            ms: performance.now() - started,
            bytes: parts.reduce((sum, part) => sum + part.length, 0),
            text: () => Buffer.concat(parts).toString(),
          }),
        );
      },
    );
    // A kept connection that the server closed at this moment: asked once more, as a browser does.
    sent.on("error", (error) =>
      error.code === "ECONNRESET" && !again ? ask(port, path, { method, body, headers, again: true }).then(resolve, reject) : reject(error),
    );
    if (text) sent.write(text);
    sent.end();
  });
}

async function started(command, args, port, path) {
  const child = spawn(command, args, { stdio: "ignore" });
  for (let tries = 0; tries < 6000; tries++) {
    const answer = await ask(port, path).catch(() => undefined);
    if (answer) return child;
    if (child.exitCode !== null) throw new Error(`${command} ended with ${child.exitCode}`);
    await new Promise((wait) => setTimeout(wait, 50));
  }
  throw new Error(`nothing answers on ${port}`);
}

const share = (sorted, part) => sorted[Math.min(sorted.length - 1, Math.floor(part * sorted.length))] ?? 0;
const some = (list) => list[Math.floor(Math.random() * list.length)];

async function readers(port, path, headers) {
  const times = [];
  let bytes = 0;
  const until = performance.now() + SECONDS * 1000;
  const one = async () => {
    while (performance.now() < until) {
      const answer = await ask(port, path(), { headers });
      if (answer.status !== 200) throw new Error(`${answer.status}: ${answer.text().slice(0, 200)}`);
      times.push(answer.ms);
      bytes += answer.bytes;
    }
  };
  await Promise.all(Array.from({ length: READERS }, one));
  times.sort((a, b) => a - b);
  return { times, bytes: bytes / times.length };
}

const made = !existsSync(DATA);
const args = made
  ? ["demo", "--clients", "200", "--no-pictures", "--data", DATA, "--port", PORT]
  : ["serve", "--data", DATA, "--port", PORT];
const began = performance.now();
const server = await started(BINARY, args.map(String), PORT, "/api/v1/health");
if (made) console.log(`made in ${((performance.now() - began) / 1000).toFixed(1)} s`);
const bare = await started(BARE, [DATA, String(BARE_PORT)], BARE_PORT, "/none");
console.log(`database ${(statSync(`${DATA}/orthomer.sqlite`).size / 1e6).toFixed(0)} MB`);

try {
  const login = { login: "mara", password: "plumb-line-demo" };
  const signed = await ask(PORT, "/api/v1/session", { method: "POST", body: login });
  const headers = { cookie: signed.headers["set-cookie"].map((set) => set.split(";")[0]).join("; ") };
  const get = async (path) => JSON.parse((await ask(PORT, `/api/v1${path}`, { headers })).text());
  const clients = [1, 2].map((page) => get(`/clients?per_page=100&page=${page}`));
  const all = (await Promise.all(clients)).flatMap(({ items }) => items);
  const ids = all.map(({ id }) => id);
  const rounds = all.flatMap(({ newest }) => (newest ? [newest.id] : []));
  // A week is searched for once, a third of a second: those of some clients have been opened before.
  const planned = rounds.slice(0, 40);
  const weeks = (await Promise.all(ids.slice(10, 60).map((id) => get(`/clients/${id}/week`)))).filter(({ plan }) => plan);
  // Reviews are of rounds whose block was trained: the one before the newest.
  const reviewed = [];
  for (const id of ids) reviewed.push(...(await get(`/clients/${id}`)).rounds.slice(1, 2).map((before) => before.id));
  const pages = {
    today: () => "/today",
    clients: () => `/clients?page=${some([1, 2, 3, 4])}`,
    "clients, found by name": () => `/clients?find=${some(["a", "el", "son", "Bram"])}`,
    client: () => `/clients/${some(ids)}`,
    round: () => `/rounds/${some(rounds)}`,
    photos: () => `/rounds/${some(rounds)}/photos`,
    tape: () => `/rounds/${some(rounds)}/tape`,
    tests: () => `/rounds/${some(rounds)}/tests`,
    verdict: () => `/rounds/${some(rounds)}/verdict`,
    plan: () => `/rounds/${some(planned)}/plan`,
    log: () => `/clients/${some(ids)}/log`,
    "week (phone)": () => `/clients/${some(ids)}/week`,
    review: () => `/rounds/${some(reviewed)}/review`,
    trends: () => `/clients/${some(ids)}/trends`,
    links: () => `/clients/${some(ids)}/links`,
    practice: () => "/practice",
    measurers: () => "/practice/measurers",
    people: () => "/practice/people",
  };
  let writing = true;
  let written = 0;
  const writer = async () => {
    while (writing) {
      const week = some(weeks);
      const session = some(week.sessions);
      const { item } = some(session.items);
      const at = new Date().toISOString();
      const set = { number: 1, load_kg: 20, ...(item.seconds ? { seconds: 30 } : { reps: 10 }) };
      const part = { kind: "exercise", exercise: item.exercise, position: item.order, scheme: item.scheme, sets: [set] };
      const entry = { id: randomUUID(), plan: week.plan.id, week: session.week, day: session.day, trained_on: week.today, at, part };
      const answer = await ask(PORT, `/api/v1/clients/${week.client_id}/log`, { method: "POST", headers, body: { sent_at: at, entries: [entry] } });
      if (answer.status !== 200) throw new Error(answer.text());
      written += 1;
      await new Promise((wait) => setTimeout(wait, WRITE_EVERY_MS));
    }
  };
  // Every page once, as on any day but the first minute of it.
  const warm = performance.now();
  for (const path of Object.values(pages)) await ask(PORT, `/api/v1${path()}`, { headers });
  for (const id of ids) for (const page of ["log", "week", "trends"]) await ask(PORT, `/api/v1/clients/${id}/${page}`, { headers });
  for (const id of planned) await ask(PORT, `/api/v1/rounds/${id}/plan`, { headers });
  for (const id of rounds) for (const page of ["", "/verdict", "/tape", "/tests"]) await ask(PORT, `/api/v1/rounds/${id}${page}`, { headers });
  for (const id of reviewed) await ask(PORT, `/api/v1/rounds/${id}/review`, { headers });
  console.log(`every page once: ${((performance.now() - warm) / 1000).toFixed(1)} s`);
  const writers = Array.from({ length: WRITERS }, writer);
  let yardstick;
  const line = (name, { times, bytes }) => {
    yardstick ??= share(times, 0.99);
    console.log(
      `${name.padEnd(26)} ${String(times.length).padStart(7)} ${(times.length / SECONDS).toFixed(0).padStart(7)}/s ` +
        `${(bytes / 1024).toFixed(1).padStart(8)} kB   p50 ${share(times, 0.5).toFixed(1).padStart(6)}  p99 ${share(times, 0.99).toFixed(1).padStart(6)}  max ${(times.at(-1) ?? 0).toFixed(0)} ms   ${(share(times, 0.99) / yardstick).toFixed(1)} x`,
    );
  };
  line("yardstick", await readers(BARE_PORT, () => `/${some(ids)}`, {}));
  for (const [name, path] of Object.entries(pages)) line(name, await readers(PORT, () => `/api/v1${path()}`, headers));
  line("yardstick again", await readers(BARE_PORT, () => `/${some(ids)}`, {}));
  writing = false;
  await Promise.all(writers);
  console.log(`${written} entries written meanwhile`);
} finally {
  server.kill();
  bare.kill();
  agent.destroy();
}
