import { act, cleanup, renderHook } from "@testing-library/react";
import { useState } from "react";
import { MemoryRouter, useLocation, useSearchParams } from "react-router";
import { afterEach, expect, test } from "vitest";
import { useMirror } from "./address";

afterEach(cleanup);

function page(address: string) {
  return renderHook(
    () => {
      const [search] = useSearchParams();
      const [region, setRegion] = useState(search.get("region") ?? undefined);
      useMirror({ region });
      return { region, setRegion, address: useLocation().search };
    },
    { wrapper: ({ children }) => <MemoryRouter initialEntries={[address]}>{children}</MemoryRouter> },
  );
}

test("what is shown stands in the address beside what stood there, and goes from it again", () => {
  const { result } = page("/verdict?order=need");
  act(() => result.current.setRegion("calves"));
  expect(result.current.address).toBe("?order=need&region=calves");
  act(() => result.current.setRegion(undefined));
  expect(result.current.address).toBe("?order=need");
});

test("a link leads to what was shown where it was copied", () => {
  const { result } = page("/verdict?region=calves");
  expect([result.current.region, result.current.address]).toEqual(["calves", "?region=calves"]);
});
