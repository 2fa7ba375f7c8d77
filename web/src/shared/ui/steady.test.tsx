import { cleanup, renderHook } from "@testing-library/react";
import { afterEach, expect, test } from "vitest";
import { useSteady } from "./steady";

afterEach(cleanup);

test("it stays the same function and does what the newest one does", () => {
  const { result, rerender } = renderHook(({ by }) => useSteady((value: number) => value + by), {
    initialProps: { by: 1 },
  });
  const first = result.current;
  expect(first(10)).toBe(11);
  rerender({ by: 5 });
  expect(result.current).toBe(first);
  expect(first(10)).toBe(15);
});
