import "fake-indexeddb/auto";
import { openDB } from "idb";
import { afterEach, expect, test, vi } from "vitest";
import {
  dropPicture,
  forgetPictures,
  keepAsked,
  keepPicture,
  keptAsked,
  waitingCount,
  waitingPictures,
} from "./waiting";

const [ONE, OTHER] = ["a".repeat(64), "b".repeat(64)];
const WORDS = "not for anybody's eyes";
const picture = () => new File([WORDS], "Front.jpg", { type: "image/jpeg" });
const take = { pose: "F", mirrored: true, distance_m: 3 } as const;

afterEach(async () => {
  vi.restoreAllMocks();
  for (const token of [ONE, OTHER]) await forgetPictures(token);
});

test("a picture that waits comes back as it was, with what was said of it", async () => {
  await keepPicture(ONE, picture(), take);
  const [found] = await waitingPictures(ONE);
  expect([await found?.file.text(), found?.file.name, found?.take]).toEqual([WORDS, "Front.jpg", take]);
});

test("nothing of it can be read on the phone without the link", async () => {
  await keepPicture(ONE, picture(), take);
  const store = await openDB("orthomer-pictures", 1);
  const [kept] = await store.getAll("waiting");
  expect(new TextDecoder().decode(kept.bytes)).not.toContain(WORDS);
  expect(JSON.stringify(kept)).not.toContain(ONE);
  expect(await waitingPictures(OTHER), "another link sees none of it").toEqual([]);
  await store.put("waiting", { ...kept, bytes: kept.bytes.slice(0, -1) });
  expect(await waitingPictures(ONE), "what was tampered with is let go").toEqual([]);
  expect(await waitingCount(ONE)).toBe(0);
  store.close();
});

test("two pictures are locked differently, and one that was sent is gone", async () => {
  const first = await keepPicture(ONE, picture(), take);
  await keepPicture(ONE, picture(), { ...take, pose: "B" });
  if (typeof first === "string") throw new Error(first);
  await dropPicture(first.id);
  expect((await waitingPictures(ONE)).map((one) => one.take.pose)).toEqual(["B"]);
});

test("a full phone and a page that cannot lock say so instead of losing a picture", async () => {
  vi.spyOn(IDBObjectStore.prototype, "add").mockImplementation(() => {
    throw new DOMException("no room", "QuotaExceededError");
  });
  expect(await keepPicture(ONE, picture(), take)).toBe("full");
  vi.restoreAllMocks();
  vi.spyOn(crypto, "subtle", "get").mockReturnValue(undefined as never);
  expect(await keepPicture(ONE, picture(), take)).toBe("not-here");
  expect(await waitingPictures(ONE)).toEqual([]);
});

test("what was asked for is there without a line, and forgotten with the link", async () => {
  const asked = { poses: [{ pose: "F", name: "Front", sent: 0 }] } as const;
  await keepAsked(ONE, asked as never);
  expect(await keptAsked(ONE)).toEqual(asked);
  expect(await keptAsked(OTHER)).toBeUndefined();
  await forgetPictures(ONE);
  expect(await keptAsked(ONE)).toBeUndefined();
});
