import { test as base, expect, type Page } from "@playwright/test";

/** A page that fails the test when the browser refuses something (content policy) or a script breaks. */
export const test = base.extend({
  page: async ({ page }, use) => {
    const complaints: string[] = [];
    page.on("pageerror", (error) => complaints.push(error.message));
    page.on("console", (message) => {
      // Refused input is answered with 4xx, which the browser logs too; those are the tests' own business.
      if (message.type() === "error" && !/status of 4\d\d/.test(message.text())) complaints.push(message.text());
    });
    await use(page);
    expect(complaints).toEqual([]);
  },
});

export { expect };

/** Opens a step of a client's newest round, by the list. */
export async function openStep(page: Page, client: string, step: string): Promise<void> {
  await page.goto("/clients");
  // The tests' own clients fill more than one page of the list.
  await page.getByLabel("Find a client").fill(client);
  await page.getByRole("link", { name: client }).click();
  await page.getByRole("heading", { name: client }).waitFor();
  await page.getByRole("link", { name: new RegExp(`^${step}`) }).click();
}

/** Adds a client with one empty round over the API, so that a test has a sheet of its own. Gives the round's address. */
export async function freshRound(
  page: Page,
  name: string,
  more: object = {},
  date = "2026-03-02",
): Promise<string> {
  const brief = {
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
  };
  const client = await (await page.request.post("/api/v1/clients", { data: brief })).json();
  const round = await page.request.post(`/api/v1/clients/${client.id}/rounds`, {
    data: { date, measured_by: "MT" },
  });
  return `/clients/${client.id}/rounds/${(await round.json()).id}`;
}

export const reading = (page: Page, label: string, unit = "cm") => page.getByLabel(`${label}, ${unit}`);
export const saveState = (page: Page) => page.locator("[role=status][data-state]");
