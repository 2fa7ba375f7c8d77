import { expect, freshRound, saveState, test } from "./practice";

const METRIC = { length: "cm", mass: "kg" };

// The practice is shared with the tests after this one.
test.afterEach(async ({ page }) => {
  await page.request.put("/api/v1/account/measures", { data: METRIC });
});

test("a coach of inches and pounds types and reads them, and what was typed comes back to the digit", async ({ page }) => {
  const round = await freshRound(page, "Inch Tester");
  await page.goto("/practice");
  await page.getByLabel("Unit of length").click();
  await page.locator(".ant-select-dropdown:visible").getByTitle("inches, eighths").click();
  await page.getByLabel("Unit of weights").click();
  const kept = page.waitForResponse((answer) => answer.url().endsWith("/account/measures") && (answer.request().postData() ?? "").includes("lb"));
  await page.locator(".ant-select-dropdown:visible").getByTitle("pounds").click();
  await kept;
  await page.goto(`${round}/tape`);
  const reading = page.getByLabel("Waist, reading 1, in");
  await reading.fill("31 3/8");
  const weight = page.getByLabel("Weight");
  await weight.fill("178.5");
  await page.keyboard.press("Tab");
  await expect(saveState(page)).toHaveText("Saved");
  await page.reload();
  await expect(reading).toHaveValue("31⅜");
  await expect(weight).toHaveValue("178.5");
  const id = round.split("/").at(-1);
  const sheet = await (await page.request.get(`/api/v1/rounds/${id}/tape`)).json();
  expect(sheet.weight_kg, "kept metric").toBeCloseTo(178.5 * 0.45359237, 6);
  expect(sheet.entries[0].readings_cm[0]).toBeCloseTo(31.375 * 2.54, 6);
  await reading.fill("313");
  await page.keyboard.press("Tab");
  await expect(page.getByRole("alert").first(), "refused in the units it was typed in").toContainText(/^313 in is outside .* in for waist/);
});

test("a client who reads pounds logs pounds, also where the coach does not", async ({ page, browser, baseURL }) => {
  const brief = {
    name: "Pound Tester", sex: "male", birth_date: "1994-06-11", height_cm: 178, dominant_hand: "right", experience: "intermediate", look: "taper",
    days_per_week: 7, minutes_per_session: 60, equipment: ["dumbbell", "cable", "incline-bench", "bench"], measures: { mass: "lb" },
    readiness: { asked_on: "2026-03-01", yes: [] },
  };
  const api = async (path: string, data: object) => (await page.request.post(`/api/v1${path}`, { data })).json();
  const client = await api("/clients", brief);
  const round = await api(`/clients/${client.id}/rounds`, { date: "2026-03-02", measured_by: "MT" });
  await api(`/rounds/${round.id}/plan/issue`, { revision: 0, starts_on: new Date().toISOString().slice(0, 10) });
  const { token } = await api(`/clients/${client.id}/links`, { days: 3 });
  const phone = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true, storageState: { cookies: [], origins: [] } });
  const own = await phone.newPage();
  await own.goto(`${baseURL}/my#${token}`);
  await own.getByRole("button", { name: /^Today/ }).click();
  await own.getByRole("button", { name: "Begin", exact: true }).click();
  await own.getByLabel("Load, lb").fill("45");
  await own.getByRole("button", { name: "Set done" }).click();
  await expect(own.getByText("45 lb ×").first()).toBeVisible();
  await expect(own.getByText("All sent")).toBeVisible();
  const log = await (await page.request.get(`/api/v1/clients/${client.id}/log`)).json();
  expect(log.done[0].exercises[0].entry.part.sets[0].load_kg).toBeCloseTo(45 * 0.45359237, 6);
  await page.goto(`/clients/${client.id}/rounds/${round.id}/log`);
  await expect(page.getByText(/(^|[LR] )20\.4 kg ×/).first(), "the coach reads kilograms").toBeVisible();
  await phone.close();
});

test("put on the home screen, a client's page starts at their link", async ({ page, browser, baseURL }) => {
  const clients = await (await page.request.get("/api/v1/clients")).json();
  const made = await page.request.post(`/api/v1/clients/${clients.items[0].id}/links`, { data: { days: 3 } });
  const { token } = await made.json();
  const phone = await browser.newContext({ storageState: { cookies: [], origins: [] } });
  const own = await phone.newPage();
  await own.goto(`${baseURL}/my#${token}`);
  await expect(own.locator('link[rel="manifest"]')).toHaveAttribute("href", /^data:/);
  const devtools = await phone.newCDPSession(own);
  const { data, errors } = await devtools.send("Page.getAppManifest");
  expect([JSON.parse(data ?? "{}").start_url, errors]).toEqual([`${baseURL}/my#${token}`, []]);
  await phone.close();
});
