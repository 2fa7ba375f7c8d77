// Which neighbouring cards of a day are done in turns. Pure.
import type { Schemas } from "../../shared/api/client";

type Card = Schemas["CardDraft"];

/** Runs of neighbours with one letter, as places from and to (not included). */
export function runs(items: Pick<Card, "group">[]): { from: number; to: number; group?: string }[] {
  const found: { from: number; to: number; group?: string }[] = [];
  for (const [place, card] of items.entries()) {
    const last = found.at(-1);
    if (last && card.group && last.group === card.group) last.to = place + 1;
    else found.push({ from: place, to: place + 1, group: card.group ?? undefined });
  }
  return found;
}

/** Letters anew in the order of the day; what stands alone is in no group. */
export function lettered(items: Card[]): Card[] {
  let next = 0;
  return runs(items).flatMap(({ from, to }) => {
    const cards = items.slice(from, to);
    if (cards.length < 2) return cards.map(({ group: _, ...card }) => card);
    const group = String.fromCharCode(65 + next);
    next += 1;
    return cards.map((card) => (card.group === group ? card : { ...card, group }));
  });
}
