import { afterEach, expect, test, vi } from "vitest";
import { startHere, tokenIn } from "./token";

const TOKEN = "0f".repeat(32);

afterEach(() => {
  vi.restoreAllMocks();
  document.head.innerHTML = "";
});

test.each([
  ["the whole link", `https://studio.example/my#${TOKEN}`, TOKEN],
  ["what stands behind the #", `#${TOKEN}`, TOKEN],
  ["the token alone", TOKEN, TOKEN],
  ["a link that was cut", `https://studio.example/my#${TOKEN.slice(2)}`, undefined],
  ["another address", "https://studio.example/clients", undefined],
  ["nothing", "", undefined],
])("%s holds a token or none", (_, text, token) => {
  expect(tokenIn(text)).toBe(token);
});

test("put on the home screen, the page starts at this client's link", async () => {
  document.head.innerHTML = '<link rel="manifest" href="/manifest.webmanifest">';
  const shipped = { name: "Orthomer", start_url: "/my", icons: [{ src: "/icon.svg", sizes: "any" }] };
  vi.spyOn(globalThis, "fetch").mockResolvedValue(new Response(JSON.stringify(shipped)));
  await startHere(TOKEN);
  const href = document.querySelector<HTMLLinkElement>("link")?.href ?? "";
  const own = JSON.parse(decodeURIComponent(href.split(",").slice(1).join(",")));
  expect(own).toMatchObject({
    name: "Orthomer",
    start_url: `${window.location.origin}/my#${TOKEN}`,
    icons: [{ src: `${window.location.origin}/icon.svg` }],
  });
});

test("without a line the shipped manifest stays", async () => {
  document.head.innerHTML = '<link rel="manifest" href="/manifest.webmanifest">';
  vi.spyOn(globalThis, "fetch").mockRejectedValue(new TypeError("no line"));
  await startHere(TOKEN);
  expect(document.querySelector("link")?.getAttribute("href")).toBe("/manifest.webmanifest");
});
