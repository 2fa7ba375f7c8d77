// The practice's settings as they are typed: texts by field, and what they become. Pure.
import type { Schemas } from "../../shared/api/client";
import { parseNumber } from "../../shared/format";

export type Settings = Schemas["PracticeEntry"];
export type PracticeView = Schemas["PracticeView"];

/** Texts by field: `number observation_sd.outline`, `share calf calves.soleus`; answers to schools by their id. */
export interface Typing {
  texts: Record<string, string>;
  schools: Record<string, string>;
}

export const numberField = (id: string): string => `number ${id}`;
export const shareField = (site: string, region: string): string => `share ${site} ${region}`;

export function typingOf({ settings }: PracticeView): Typing {
  const texts: Record<string, string> = {};
  for (const [id, value] of Object.entries(settings.numbers ?? {})) texts[numberField(id)] = String(value);
  for (const [site, row] of Object.entries(settings.composition ?? {}))
    for (const [region, share] of Object.entries(row)) texts[shareField(site, region)] = String(share);
  return { texts, schools: settings.schools ?? {} };
}

/** The share of a region in a girth as it stands in its field, else as shipped. */
export function shareOf(view: PracticeView, { texts }: Typing, site: string, region: string): string {
  return texts[shareField(site, region)] ?? String(view.shipped_composition[site]?.[region] ?? 0);
}

export interface Typed {
  settings: Settings;
  unreadable: string[];
}

/** What the texts say. A girth of which one share is typed is sent as a whole row. */
export function settingsOf(view: PracticeView, typing: Typing): Typed {
  const typed: Typed = {
    settings: { schools: typing.schools, numbers: {}, composition: {}, exercises: [] },
    unreadable: [],
  };
  const read = (field: string, text: string): number | undefined => {
    const value = parseNumber(text);
    if (value === undefined) typed.unreadable.push(field);
    return value;
  };
  const numbers: Record<string, number> = {};
  for (const { setting } of view.numbers) {
    const text = typing.texts[numberField(setting.id)];
    const value = text?.trim() ? read(numberField(setting.id), text) : undefined;
    if (value !== undefined) numbers[setting.id] = value;
  }
  const composition: Record<string, Record<string, number>> = {};
  for (const [site, row] of Object.entries(view.shipped_composition)) {
    const regions = Object.keys(row);
    if (!regions.some((region) => typing.texts[shareField(site, region)]?.trim())) continue;
    const shares = regions.map((region) => [
      region,
      read(shareField(site, region), shareOf(view, typing, site, region)),
    ]);
    if (shares.every(([, share]) => share !== undefined)) composition[site] = Object.fromEntries(shares);
  }
  typed.settings = { schools: typing.schools, numbers, composition, exercises: view.settings.exercises };
  return typed;
}

export function differing(view: PracticeView, mine: Typing, theirs: Typing): number {
  const flat = (typing: Typing) => {
    const { settings } = settingsOf(view, typing);
    return new Map<string, unknown>([
      ...Object.entries(settings.numbers ?? {}),
      ...Object.entries(settings.schools ?? {}),
      ...Object.entries(settings.composition ?? {}).map(
        ([site, row]) => [site, JSON.stringify(row)] as const,
      ),
    ]);
  };
  const [one, other] = [flat(mine), flat(theirs)];
  return [...new Set([...one.keys(), ...other.keys()])].filter((key) => one.get(key) !== other.get(key))
    .length;
}

/** The server's problems by field; a problem of a whole row stands at its girth. */
export function problemsByField(errors: Schemas["Problem"][] | undefined): Record<string, string> {
  const found: Record<string, string> = {};
  for (const { pointer, says } of errors ?? []) {
    const [, , list, one = "", two] = pointer.split("/");
    const field = list === "numbers" ? numberField(one) : two ? shareField(one, two) : `row ${one}`;
    found[field] = says;
  }
  return found;
}
