import { expect, freshRound, reading, saveState, test } from "./practice";

test("simulated tape, calipers and scale send into the field that waits, with the bias that is set", async ({
  page,
  context,
}) => {
  const round = await freshRound(page, "Device Tester");
  await page.goto(`${round}/tape`);
  await page.getByRole("switch", { name: "Devices send into this sheet" }).click();
  await expect(page.getByText("listening")).toBeVisible();
  const devices = await context.newPage();
  await devices.goto("/stand-in");
  await expect(devices.getByText("No sheet waits")).toBeVisible();
  await page.bringToFront();
  await reading(page, "Waist, reading 1").focus();
  await expect(devices.getByRole("status").first()).toHaveText("The sheet waits for: Waist.");
  const read = async (device: string, settings: Record<string, string>) => {
    const card = devices.getByRole("region", { name: device, exact: true });
    for (const [label, value] of Object.entries(settings))
      await card.getByLabel(`${device}: ${label}`).fill(value);
    await card.getByRole("button", { name: "Read" }).click();
  };
  await read("Tape", { "True size": "80", "Noise, SD": "0", Bias: "0.5" });
  await expect(reading(page, "Waist, reading 1")).toHaveValue("80.5");
  await expect(reading(page, "Waist, reading 2"), "the cursor goes on as with Enter").toBeFocused();
  await read("Tape", { Bias: "0" });
  await expect(reading(page, "Waist, reading 2")).toHaveValue("80");
  await read("Calipers", { "True size": "9", "Noise, SD": "0" });
  await expect(reading(page, "Triceps fold left, reading 1", "mm")).toHaveValue("9");
  await read("Scale", { "True size": "81.2", "Noise, SD": "0" });
  await expect(page.getByLabel("Weight")).toHaveValue("81.2");
  await expect(saveState(page)).toHaveText("Saved");
  await page.getByRole("switch", { name: "Devices send into this sheet" }).click();
  await expect(page.getByText("listening")).toHaveCount(0);
});

test("what cannot be read is said at the device", async ({ page }) => {
  await page.goto("/stand-in");
  const card = page.getByRole("region", { name: "Tape", exact: true });
  await card.getByLabel("Tape: True size").fill("-3");
  await card.getByRole("button", { name: "Read" }).click();
  await expect(card.getByRole("alert")).toContainText("-3 cm with a noise of 0.2 cm cannot be read");
});
