import { readFileSync } from "node:fs";
import { cleanup, fireEvent } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { show } from "../../test/render";
import { BodyFigure } from "./BodyFigure";
import { SHAPES } from "./shapes";

afterEach(cleanup);

const REGIONS = [
  ...readFileSync("../crates/atlas/data/regions.toml", "utf8").matchAll(/^id = "(.+)"$/gm),
].map(([, id]) => id);
const words = { front: "front", back: "back", left: "L", right: "R" };

test("every region of the atlas can be seen from the front or from behind, and nothing else is drawn", () => {
  const drawn = new Set([...SHAPES.front, ...SHAPES.back].map(({ region }) => region));
  expect([...drawn].sort()).toEqual([...REGIONS].sort());
});

test.each(["front", "back"] as const)("no shape of the %s leaves the figure's half", (view) => {
  for (const { region, path } of SHAPES[view]) {
    const numbers = path.match(/-?\d+(\.\d+)?/g)?.map(Number) ?? [];
    const x = numbers.filter((_, index) => index % 2 === 0);
    const y = numbers.filter((_, index) => index % 2 === 1);
    // A smooth line swings a little past its points at the midline, where it is clipped.
    expect(Math.min(...x), region).toBeGreaterThan(-8);
    expect(Math.max(...x), region).toBeLessThan(80);
    expect(Math.min(...y), region).toBeGreaterThan(35);
    expect(Math.max(...y), region).toBeLessThan(370);
  }
});

test("seen from the front the client's left is on our right, from behind on our left", () => {
  const onPick = vi.fn();
  const { container } = show(
    <BodyFigure label="figure" words={words} shade={() => ({ fill: "red" })} onPick={onPick} />,
  );
  const calves = [...container.querySelectorAll('[data-region="calves.soleus"]')];
  const mirrored = (element: Element) => element.closest('[transform="scale(-1 1)"]') !== null;
  expect(calves.map((element) => [(element as HTMLElement).dataset.side, mirrored(element)])).toEqual([
    ["left", false],
    ["right", true],
    ["right", false],
    ["left", true],
  ]);
  fireEvent.click(calves[1] as Element);
  expect(onPick).toHaveBeenCalledWith("calves.soleus", "right");
});
