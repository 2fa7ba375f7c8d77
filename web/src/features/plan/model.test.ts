import { expect, test } from "vitest";
import { firstSide, type Item, type LedgerRow, ledgerEnd, ledgerRows } from "./model";

const row = (region: string, change: Partial<LedgerRow> = {}): LedgerRow => ({
  region,
  class: "keep",
  low: 3,
  aim: 5,
  high: 8,
  direct: 0,
  indirect: 0,
  total: 0,
  ...change,
});

test("the ledger starts with what is chosen and can leave out what is only kept", () => {
  const ledger = [row("a"), row("b", { class: "bring-up" }), row("c", { class: "grow" })];
  expect(ledgerRows(ledger, true).map(({ region }) => region)).toEqual(["b", "c", "a"]);
  expect(ledgerRows(ledger, false).map(({ region }) => region)).toEqual(["b", "c"]);
});

test("bars have room for the fullest row", () => {
  expect(ledgerEnd([row("a", { total: 26 })])).toBe(26);
  expect(ledgerEnd([row("a")])).toBe(20);
});

test.each([
  ["both", undefined],
  ["left-first", "left"],
  ["right-first", "right"],
] as const)("sides %s start with %s", (sides, side) => {
  expect(firstSide({ sides } as Item)).toBe(side);
});
