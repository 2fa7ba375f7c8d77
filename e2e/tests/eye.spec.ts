import { expect, test } from "./practice";

test("a sitting is judged to its end by key alone, and what is known of the eye grows by it", async ({ page }) => {
  // Twelve pictures are drawn on the way.
  test.slow();
  await page.goto("/clients");
  await page.getByRole("link", { name: "Oda Fenwick" }).waitFor();
  await page.keyboard.press("g");
  await page.keyboard.press("y");
  await page.getByRole("heading", { name: "Eye" }).waitFor();
  const sittings = page.getByRole("listitem").filter({ hasText: "right in" });
  const before = await sittings.count();
  await page.keyboard.press("n");
  for (let at = 1; at <= 12; at++) {
    await expect(page.getByText(`Picture ${at} of 12`)).toBeVisible();
    const sides = await page.getByRole("group", { name: "Left against right" }).isVisible();
    // The picture is there before it is judged.
    const drawn = () =>
      page.evaluate(async () => {
        const image = new Image();
        image.src = document.querySelector("image")?.getAttribute("href") ?? "";
        await image.decode();
        return image.naturalWidth;
      });
    expect(await drawn()).toBe(720);
    await page.keyboard.press(sides ? "8" : "3");
    const next = page.getByRole("button", { name: at < 12 ? /^Next picture/ : /^See how it went/ });
    await next.waitFor();
    await expect(page.getByText(/^You said: (same|level)\.$/)).toBeVisible();
    await page.keyboard.press("Enter");
  }
  await page.getByRole("heading", { name: "How it went" }).waitFor();
  // Each of the eight figures once; what was said of those that came again twice.
  await expect(page.getByRole("row")).toHaveCount(8);
  await expect(page.getByText(/^(same, same|level, level)$/)).toHaveCount(4);
  await page.getByRole("link", { name: "Back to your eye" }).click();
  await expect(sittings).toHaveCount(before + 1);
});

test("a sitting left in the middle is gone on with from there", async ({ page }) => {
  await page.goto("/eye");
  await page.getByRole("button", { name: /sitting/ }).click();
  await page.getByRole("button", { name: "Can't tell" }).click();
  await expect(page.getByText("You could not tell.")).toBeVisible();
  await page.goto("/eye");
  await page.getByRole("button", { name: /^Go on with picture 2 of 12/ }).click();
  await expect(page.getByText("Picture 2 of 12")).toBeVisible();
});
