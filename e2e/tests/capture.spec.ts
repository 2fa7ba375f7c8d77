import { mkdirSync, readFileSync, writeFileSync } from "node:fs";
import type { Page } from "@playwright/test";
import { serious } from "./axe";
import { boothPicture, briefOf, expect, test } from "./practice";
import config from "../playwright.config";

// A camera of Chromium's own that plays a file: each picture of the booth is what the phone sees until another one is put there.
const CAMERA = `${process.cwd()}/test-results/camera-${process.env.TEST_PARALLEL_INDEX ?? 0}.mjpeg`;

function sees(pose: string, camera: object = {}, light: object = {}): void {
  mkdirSync("test-results", { recursive: true });
  writeFileSync(CAMERA, readFileSync(boothPicture(pose, camera, light)));
}

test.use({
  viewport: { width: 390, height: 844 },
  permissions: ["camera"],
  launchOptions: {
    ...config.use?.launchOptions,
    args: [
      ...(config.use?.launchOptions?.args ?? []),
      "--use-fake-device-for-media-stream",
      `--use-file-for-fake-video-capture=${CAMERA}`,
    ],
  },
});

const dayBefore = (days: number) => new Date(Date.now() - days * 86_400_000).toISOString().slice(0, 10);

/** A client with a round of four weeks ago, in which the front was taken, and one of today. Gives the address of their page. */
async function far(page: Page, name: string): Promise<{ link: string; round: string; desk: string }> {
  const brief = briefOf(name, { photo_consent: { given_on: dayBefore(40), purposes: ["assessment"] } });
  const sent = async (path: string, data: object) => {
    const answer = await page.request.post(`/api/v1${path}`, { data });
    expect(answer.ok(), await answer.text()).toBe(true);
    return answer.json();
  };
  const client = await sent("/clients", brief);
  const rounds = `/clients/${client.id}/rounds`;
  const earlier = await sent(rounds, { date: dayBefore(28), measured_by: "MT" });
  const round = await sent(rounds, { date: dayBefore(0), measured_by: "MT" });
  await page.request.post(`/api/v1/rounds/${earlier.id}/photos?pose=F&mirrored=false&distance_m=3.5`, {
    data: readFileSync(boothPicture("F")),
    headers: { "Content-Type": "application/octet-stream" },
  });
  const { token } = await sent(`/clients/${client.id}/links`, { days: 5 });
  await expect
    .poll(async () => {
      const asked = await page.request.get("/api/v1/my/photos", { headers: { Authorization: `Bearer ${token}` } });
      return (await asked.json()).poses[0].ghost?.on;
    })
    .toBe(dayBefore(28));
  const address = `/rounds/${round.id}`;
  return { link: `/my#${token}`, round: address, desk: `/clients/${client.id}${address}/photos` };
}

async function openCamera(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Pictures" }).click();
  await page.getByRole("button", { name: "Take them with the camera" }).click();
}

test("a client takes a front that is as last time, after hearing what was wrong with five others", async ({ page }) => {
  const { link, round } = await far(page, "Far Away");
  sees("F");
  await page.goto(link);
  await openCamera(page);
  await page.getByLabel("Place, in your words").fill("on the shelf");
  await page.getByLabel(/^Lens above the floor/).fill("100");
  await page.getByLabel(/^Lens to the mark/).fill("350");
  await page.getByRole("button", { name: "Keep and go on" }).click();
  await page.getByRole("button", { name: "Start" }).waitFor();

  for (const [camera, light, says] of [
    [{ distance_m: 3, fill: 0.94 }, {}, /^You are nearer than last time by about \d+ %: step back about \d+ cm\.$/],
    [{ yaw_deg: 18 }, {}, /^You stand a little turned: face the camera squarely/],
    [{ fill: 1.15 }, {}, /cut off: step back until all of you is in\.$/],
    [{}, { kind: "dim" }, /^It is darker than last time/],
    [{}, {}, /^Good: as last time\.$/],
  ] as const) {
    // The camera opens anew, with what it sees now.
    await page.getByRole("button", { name: "Close" }).click();
    await expect(page.getByRole("dialog")).toHaveCount(0);
    sees("F", camera, light);
    await page.getByRole("button", { name: "Take them with the camera" }).click();
    await page.getByText("on the shelf · lens 100 cm up, 350 cm away · 1×").waitFor();
    await page.getByRole("button", { name: "3 s" }).click();
    await page.getByLabel("Goes on by itself").setChecked(false);
    await page.getByRole("button", { name: "Start" }).click();
    await expect(page.getByRole("timer")).toHaveText("3");
    // The first look loads the model, which takes a debug build on a busy machine its time.
    await expect(page.getByRole("status")).toHaveText(says, { timeout: 40_000 });
  }
  await page.getByRole("button", { name: "Next" }).click();
  await expect(page.getByRole("heading", { name: "Back relaxed" })).toBeVisible();
  const photos = async () => {
    const table = await (await page.request.get(`/api/v1${round}/photos`)).json();
    return table.rounds.at(-1).photos.map((photo: { pose: string; distance_m: number }) => [photo.pose, photo.distance_m]);
  };
  await expect.poll(photos, "the one that was good is all that was sent").toEqual([["F", 3.5]]);
});

test("in the studio the coach's own phone takes them the same way, and they are in the round at once", async ({ page }) => {
  const { desk, round } = await far(page, "Before The Studio Wall");
  sees("F");
  await page.goto(desk);
  await page.getByRole("button", { name: "Take them now" }).click();
  await page.getByRole("button", { name: "Without it, this time" }).click();
  await page.getByRole("button", { name: "3 s" }).click();
  await page.getByLabel("Goes on by itself").setChecked(false);
  await expect(page.getByText("The pale line is you on")).toBeVisible();
  expect(await serious(page)).toEqual([]);
  await page.getByRole("button", { name: "Start" }).click();
  await expect(page.getByRole("status")).toHaveText(/^Good: as last time\.$/, { timeout: 40_000 });
  const camera = page.getByRole("dialog");
  await camera.getByRole("button", { name: "Next" }).click();
  await expect(camera.getByRole("heading", { name: "Back relaxed" })).toBeVisible();
  await camera.getByRole("button", { name: "Close" }).click();
  const poses = async () => {
    const table = await (await page.request.get(`/api/v1${round}/photos`)).json();
    return table.rounds.at(-1).photos.map(({ pose, mirrored }: { pose: string; mirrored: boolean }) => [pose, mirrored]);
  };
  await expect.poll(poses).toEqual([["F", false]]);
});

test("a picture that is taken without a line waits on the phone and goes when there is one", async ({ page, context }) => {
  const { link, round } = await far(page, "Far And Without A Line");
  sees("F");
  await page.goto(link);
  await page.evaluate(() => navigator.serviceWorker.ready);
  await openCamera(page);
  await page.getByRole("button", { name: "Without it, this time" }).click();
  await page.getByRole("button", { name: "3 s" }).click();
  await page.getByLabel("Goes on by itself").setChecked(false);
  expect(await serious(page)).toEqual([]);
  await context.setOffline(true);
  await page.getByRole("button", { name: "Start" }).click();
  await expect(page.getByRole("status")).toHaveText(/^Taken\. Light and sharpness are good/);
  await page.getByRole("button", { name: "Next" }).click();
  await page.getByRole("button", { name: "Close" }).click();
  await expect(page.getByRole("alert")).toHaveText("Waits on this phone, locked, for a line.");

  // Closed and opened again, still without a line.
  await page.reload();
  await page.getByRole("button", { name: "Pictures" }).click();
  await expect(page.getByRole("alert")).toHaveText("Waits on this phone, locked, for a line.");
  await context.setOffline(false);
  await expect(page.getByText("1 sent")).toBeVisible();
  await expect(page.getByRole("alert")).toHaveCount(0);
  const table = await (await page.request.get(`/api/v1${round}/photos`)).json();
  expect(table.rounds.at(-1).photos).toHaveLength(1);
  const left = await page.evaluate(
    () =>
      new Promise((done) => {
        const opening = indexedDB.open("orthomer-pictures");
        opening.onsuccess = () => {
          const all = opening.result.transaction("waiting").objectStore("waiting").count();
          all.onsuccess = () => done(all.result);
        };
      }),
  );
  expect(left, "nothing of it stays on the phone").toBe(0);
});

test("a page that may not use the camera says what to do, and the phone's own camera stays", async ({ page, context }) => {
  const { link } = await far(page, "Far Without Permission");
  await context.clearPermissions();
  await page.goto(link);
  await openCamera(page);
  await page.getByRole("button", { name: "Without it, this time" }).click();
  await expect(page.getByRole("alert")).toHaveText(/^This page may not use the camera\. Allow it/);
  await page.getByRole("button", { name: "Back to the list" }).click();
  await page.getByLabel("Take the picture: Front relaxed").setInputFiles(boothPicture("F"));
  await expect(page.getByText("1 sent")).toBeVisible();
});
