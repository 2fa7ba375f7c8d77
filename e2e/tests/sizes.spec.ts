// Every page at a desk, on a tablet and on a phone: nothing has to be pushed sideways to be read.
import { expect, test } from "./practice";

const SIZES = [
  { width: 390, height: 844 },
  { width: 820, height: 1180 },
  { width: 1280, height: 800 },
];
const STEPS = ["brief", "photos", "tape", "tests", "verdict", "plan", "log", "review", "trends"];

for (const size of SIZES) {
  test(`no page is wider than ${size.width} by ${size.height}`, async ({ page }) => {
    await page.setViewportSize(size);
    const found = await (await page.request.get("/api/v1/clients?find=Oda%20Fenwick")).json();
    const client = `/clients/${found.items[0].id}`;
    const round = `${client}/rounds/${found.items[0].newest.id}`;
    const pages = ["/today", "/clients", "/clients/new", client, `${client}/messages`, "/library", "/eye", "/practice"];
    const wide: string[] = [];
    for (const path of [...pages, ...STEPS.map((step) => `${round}/${step}`), "/stand-in"]) {
      await page.goto(path);
      await page.getByRole("heading").first().waitFor();
      await page.waitForLoadState("networkidle");
      const width = await page.evaluate(() => document.documentElement.scrollWidth);
      if (width > size.width) wide.push(`${path.replace(round, "round").replace(client, "client")}: ${width}`);
    }
    expect(wide).toEqual([]);
  });
}
