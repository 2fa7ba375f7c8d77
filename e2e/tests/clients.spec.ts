import { expect, openStep, test } from "./practice";

test("each client's line says what stands out, what leans and what is next", async ({ page }) => {
  await page.goto("/clients");
  const line = (name: string) => page.getByRole("row", { name });
  await expect(line("Oda Fenwick")).toContainText("Calf behind");
  await expect(line("Bram Quillan")).toContainText(/Upper arm, flexed\s*R \+5\.\d %/);
  await expect(line("Juno Halvard")).toContainText("nothing stands out");
  await expect(line("Rune Castellan"), "muscular, and not outside the reference").toContainText("Shoulders ahead");
  await expect(line("Nadia Pell")).toContainText("too little measured");
  await expect(line("Nadia Pell").getByRole("link", { name: "Tape" })).toBeVisible();
});

test("clients are found and opened by key alone", async ({ page }) => {
  await page.goto("/clients");
  await expect(page.getByRole("link", { name: "Oda Fenwick" })).toBeVisible();
  await page.keyboard.press("/");
  await page.keyboard.type("tarrow");
  await expect(page.getByRole("link", { name: "Oda Fenwick" })).toBeHidden();
  await page.keyboard.press("Tab");
  await page.locator("body").press("j");
  await page.keyboard.press("o");
  await expect(page.getByRole("heading", { name: "Ilse Tarrow" })).toBeVisible();
});

test("a client is found in the list and a step of their newest round opened from their page", async ({ page }) => {
  await page.goto("/clients");
  await page.getByLabel("Find a client").fill("Oda Fenwick");
  // Until the list is down to that line and the head's, a row moves away under the pointer.
  await expect(page.getByRole("row")).toHaveCount(2);
  await page.getByRole("link", { name: "Oda Fenwick" }).click();
  await page.getByRole("heading", { name: "Oda Fenwick" }).waitFor();
  await page.getByRole("link", { name: /^Tape/ }).click();
  await expect(page).toHaveURL(/\/rounds\/[^/]+\/tape$/);
  await expect(page.getByText("3 of 3")).toBeVisible();
});

test("log and review say how far they have come before anything was given", async ({ page }) => {
  await openStep(page, "Nadia Pell", "Log");
  await expect(page.getByText("No plan was given yet.")).toBeVisible();
  await expect(page.getByRole("link", { name: "Give a plan" })).toBeVisible();
  await page.getByRole("link", { name: /^Review/ }).click();
  await expect(page.getByRole("button", { name: "Open the next round" })).toBeVisible();
});

test("keys go to steps and between rounds, and ? lists them", async ({ page }) => {
  await openStep(page, "Oda Fenwick", "Verdict");
  await page.getByText("3 of 3").waitFor();
  await page.keyboard.press("[");
  await expect(page.getByText("2 of 3")).toBeVisible();
  await page.keyboard.press("g");
  await page.keyboard.press("t");
  await expect(page).toHaveURL(/\/tape$/);
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog", { name: "Keys" })).toBeVisible();
});

test("Ctrl K goes to a client, an exercise or a step by name, from wherever one is", async ({ page }) => {
  await page.goto("/today");
  await page.getByRole("heading", { level: 1, name: "Today" }).waitFor();
  const field = page.getByRole("combobox", { name: "A client, a page, an exercise" });
  await page.keyboard.press("Control+k");
  await expect(field).toBeFocused();
  await page.keyboard.type("fenwick");
  await expect(page.getByRole("option", { name: "Oda Fenwick client", selected: true })).toBeVisible();
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { level: 1, name: "Oda Fenwick" })).toBeVisible();
  await page.getByText("3 of 3").waitFor();
  await page.keyboard.press("Control+k");
  await page.keyboard.type("tape");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/tape$/);
  await page.keyboard.press("Control+k");
  await page.keyboard.type("seated leg");
  await page.keyboard.press("Enter");
  await expect(page).toHaveURL(/\/library\?exercise=/);
  await expect(page.getByRole("button", { expanded: true, name: /Seated leg curl/ })).toBeInViewport();
});

test("the list is narrowed by its address, and a day for the next round is agreed on with several", async ({ page }) => {
  await page.goto("/clients?behind=calf");
  await expect(page.getByRole("row", { name: "Oda Fenwick" })).toBeVisible();
  await expect(page.getByRole("row", { name: "Juno Halvard" })).toBeHidden();
  await page.goto("/clients");
  for (const name of ["Oda Fenwick", "Juno Halvard"]) await page.getByRole("checkbox", { name: `Choose ${name}` }).check();
  await expect(page.getByText("2 chosen")).toBeVisible();
  await page.getByRole("button", { name: "Put them there" }).click();
  await expect(page.getByRole("row", { name: "Juno Halvard" })).toContainText(/next \d+ \w+/);
  await page.getByRole("checkbox", { name: "Round due" }).check();
  await expect(page).toHaveURL(/due=1/);
  await expect(page.getByRole("row", { name: "Juno Halvard" })).toBeVisible();
  await page.goto("/today");
  await expect(page.getByRole("listitem").filter({ hasText: "Juno Halvard" }).filter({ hasText: "The next round was agreed on for" })).toBeVisible();
  // As it was, for the tests after this one.
  await page.goto("/clients");
  for (const name of ["Oda Fenwick", "Juno Halvard"]) await page.getByRole("checkbox", { name: `Choose ${name}` }).check();
  await page.getByRole("button", { name: "No day" }).click();
  await expect(page.getByRole("row", { name: "Juno Halvard" })).not.toContainText("next");
});
