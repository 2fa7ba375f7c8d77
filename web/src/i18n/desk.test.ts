import { expect, test } from "vitest";
import { en } from "./en";
import * as capture from "./en-capture";
import * as eye from "./en-eye";
import * as library from "./en-library";
import * as practice from "./en-practice";
import * as review from "./en-review";

/** Texts that come with the pages of one feature. */
const later: Record<string, object> = { capture, eye, library, practice, review };

const sources = import.meta.glob<string>(["../**/*.tsx", "!../**/*.test.tsx", "!../test/**"], {
  query: "?raw",
  import: "default",
  eager: true,
});

const keys = Object.entries(sources).flatMap(([file, text]) =>
  [...text.matchAll(/\bt\(\s*["`]([a-zA-Z.]+)/g)].map(([, key = ""]) => [key, file] as const),
);

test("there are words to look for", () => {
  expect(keys.length).toBeGreaterThan(600);
});

/** Words that are not there where they are said, each once. */
const missing = keys.filter(([key, file]) => {
  const own = /features\/([a-z]+)\//.exec(file)?.[1] ?? "";
  // Up to where the rest is put together; a plural ends in _one and _other.
  const found = key
    .split(".")
    .filter(Boolean)
    .reduce<unknown>(
      (at, part) => {
        const words = at as Record<string, unknown> | undefined;
        return words?.[part] ?? words?.[`${part}_one`];
      },
      { ...en, ...later[own] },
    );
  return found === undefined;
});

test("every page finds its words: in what is there from the start, or in what comes with it", () => {
  expect(missing).toEqual([]);
});
