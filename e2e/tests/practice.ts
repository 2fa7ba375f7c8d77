import { type ChildProcess, execFileSync, spawn } from "node:child_process";
import { mkdirSync, writeFileSync } from "node:fs";
import { test as base, expect, type Page, request } from "@playwright/test";

const FIRST_PORT = 8129;
const BINARY = process.env.ORTHOMER ?? "../target/debug/orthomer";
const START_S = 60;

/** A practice of its own for each worker: its address and a coach signed in, once, as attempts are limited. */
interface Practice {
  address: string;
  signedIn: Awaited<ReturnType<Awaited<ReturnType<typeof request.newContext>>["storageState"]>>;
}

async function answers(address: string, server: ChildProcess): Promise<void> {
  for (let tenths = 0; tenths < START_S * 10; tenths++) {
    if (server.exitCode !== null) throw new Error(`the server ended with ${server.exitCode}`);
    const health = await fetch(`${address}/api/v1/health`).catch(() => undefined);
    if (health?.ok) return;
    await new Promise((wait) => setTimeout(wait, 100));
  }
  throw new Error(`nothing answers at ${address} after ${START_S} s`);
}

async function signIn(address: string): Promise<Practice["signedIn"]> {
  const context = await request.newContext({ baseURL: address });
  const answer = await context.post("/api/v1/session", { data: { login: "mara", password: "plumb-line-demo" } });
  if (!answer.ok()) throw new Error(`sign-in answered ${answer.status()}`);
  const state = await context.storageState();
  await context.dispose();
  return state;
}

/**
 * The real binary with demo data, without pictures, so that drawing them does not slow the tests; those about pictures send their
 * own. A page fails the test when the browser refuses something (content policy) or a script breaks.
 */
export const test = base.extend<object, { practice: Practice }>({
  practice: [
    // biome-ignore lint/correctness/noEmptyPattern: the form Playwright asks for
    async ({}, use, { parallelIndex }) => {
      const port = FIRST_PORT + parallelIndex;
      const address = `http://127.0.0.1:${port}`;
      const server = spawn(BINARY, ["demo", "--no-pictures", "--port", String(port)], { stdio: "ignore" });
      try {
        await answers(address, server);
        await use({ address, signedIn: await signIn(address) });
      } finally {
        server.kill();
      }
    },
    { scope: "worker", timeout: 2 * START_S * 1000 },
  ],
  baseURL: ({ practice }, use) => use(practice.address),
  storageState: ({ practice }, use) => use(practice.signedIn),
  page: async ({ page }, use) => {
    const complaints: string[] = [];
    page.on("pageerror", (error) => complaints.push(error.message));
    page.on("console", (message) => {
      // Refused input is answered with 4xx, and a test may cut the line: the browser logs both, and both are the tests' own business.
      if (message.type() === "error" && !/status of 4\d\d|ERR_INTERNET_DISCONNECTED/.test(message.text())) complaints.push(message.text());
    });
    await use(page);
    // The next test's clients are this one's: what is still on its way is waited for.
    if (!page.isClosed())
      await expect(page.locator("[data-state=unsaved], [data-state=saving]")).toHaveCount(0);
    expect(complaints).toEqual([]);
  },
});

export { expect };

/** Opens a step of a client's newest round at its address; that the list and the client's page lead there is a test of its own. */
export async function openStep(page: Page, client: string, step: string): Promise<void> {
  const found = await page.request.get("/api/v1/clients", { params: { find: client } });
  const { items } = await found.json();
  expect(items).toHaveLength(1);
  const answer = await page.request.get(`/api/v1/clients/${items[0].id}`);
  const rounds: { id: string; date: string }[] = (await answer.json()).rounds;
  const newest = rounds.reduce((one, other) => (other.date > one.date ? other : one));
  await page.goto(`/clients/${items[0].id}/rounds/${newest.id}/${step.toLowerCase()}`);
  // Until the round's steps are there, no key goes anywhere.
  await page.getByRole("link", { name: new RegExp(`^${step}`) }).first().waitFor();
}

/** The brief of a client whom a test adds. */
export const briefOf = (name: string, more: object = {}) => ({
  name,
  sex: "male",
  birth_date: "1994-06-11",
  height_cm: 178,
  dominant_hand: "right",
  experience: "intermediate",
  look: "taper",
  days_per_week: 4,
  minutes_per_session: 70,
  equipment: ["dumbbell", "cable", "incline-bench", "bench"],
  ...more,
});

/** Adds a client with one empty round over the API, so that a test has a sheet of its own. Gives the round's address. */
export async function freshRound(
  page: Page,
  name: string,
  more: object = {},
  date = "2026-03-02",
): Promise<string> {
  const brief = briefOf(name, more);
  const client = await (await page.request.post("/api/v1/clients", { data: brief })).json();
  const round = await page.request.post(`/api/v1/clients/${client.id}/rounds`, {
    data: { date, measured_by: "MT" },
  });
  return `/clients/${client.id}/rounds/${(await round.json()).id}`;
}

/** On the board: the first card of the first day for which there is something else, with the list beside it. Gives its place. */
export async function openSwaps(page: Page): Promise<number> {
  const panel = page.getByRole("region", { name: /^Instead of/ });
  const others = panel.getByRole("listitem");
  const cards = page.getByRole("region", { name: /^Session/ }).first().getByRole("listitem");
  for (let place = 0; ; place++) {
    await page.keyboard.press("j");
    await page.keyboard.press("x");
    const card = (await cards.nth(place).getByRole("button", { expanded: false }).textContent()) ?? "";
    const named = async () => (await panel.getAttribute("aria-label"))?.replace("Instead of ", "") ?? "no panel";
    await expect.poll(async () => card.startsWith(await named())).toBe(true);
    await expect(others.or(panel.getByText(/^Nothing else/)).first()).toBeVisible();
    if ((await others.count()) > 0) return place;
  }
}

export const reading = (page: Page, label: string, unit = "cm") => page.getByLabel(`${label}, ${unit}`);
export const saveState = (page: Page) => page.locator("[role=status][data-state]");

/** A made-up man from the booth; gives the path of the picture. */
export function boothPicture(pose: string, camera: object = {}, light: object = {}): string {
  const out = `test-results/booth-${[pose, ...Object.entries({ ...camera, ...light }).flat()].join("-")}`;
  mkdirSync(out, { recursive: true });
  const spec = { format: "orthomer-booth", version: 1, stature_cm: 178, sex: "male", pose, camera, light };
  writeFileSync(`${out}/spec.json`, JSON.stringify({ ...spec, image: { width: 600, height: 800 } }));
  execFileSync(BINARY, ["booth", `${out}/spec.json`, "--out", out]);
  return `${out}/picture.jpg`;
}
