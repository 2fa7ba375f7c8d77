// How a plan is put into words and rows. Pure.
import type { Schemas } from "../../shared/api/client";

export type Item = Schemas["ItemEntry"];
export type LedgerRow = Schemas["LedgerEntry"];

const ORDER: LedgerRow["class"][] = ["bring-up", "grow", "keep", "hold-back"];

/** Ledger rows by class, chosen first, and within a class in the order of the body. */
export function ledgerRows(ledger: LedgerRow[], all: boolean): LedgerRow[] {
  const shown = all ? ledger : ledger.filter((row) => row.class === "bring-up" || row.class === "grow");
  return ORDER.flatMap((one) => shown.filter((row) => row.class === one));
}

/** Sets at the right end of the ledger's bars: enough for the widest band and the fullest row. */
export function ledgerEnd(ledger: LedgerRow[]): number {
  return Math.max(20, ...ledger.map(({ total, high }) => Math.max(total, high)));
}

/** The side that goes first, if one does. */
export function firstSide(item: Item): Schemas["Side"] | undefined {
  if (item.sides === "both") return undefined;
  return item.sides === "left-first" ? "left" : "right";
}
