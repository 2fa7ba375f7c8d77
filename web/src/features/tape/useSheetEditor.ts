import { useMemo, useRef } from "react";
import { useTranslation } from "react-i18next";
import { useQuantities } from "../../shared/format";
import { type Document, useDocument } from "../../shared/save";
import { useSendSheet } from "./api";
import { cellName, cellText } from "./cellName";
import {
  type Cell,
  differing,
  type Fold,
  type Place,
  placeOfFold,
  placeOfSite,
  problemsByCell,
  type Sheet,
  type Site,
  type Texts,
  type Typed,
  type Typing,
  typed,
  typingOf,
} from "./model";

export interface Editor {
  texts: Texts;
  holder: string;
  problems: Record<Cell, string>;
  unreadable: Cell[];
  document: Document<Sheet, Typing>;
  type: (cell: Cell, text: string) => void;
  /** Puts many readings in at once, as one step. */
  fill: (texts: Texts) => void;
  hold: (name: string) => void;
}

/** Where a sheet's sites and folds stand. */
export function placesOf(sites: Site[], folds: Fold[], sheet: Sheet): Place[] {
  return [...sites.map(placeOfSite), ...folds.map((fold) => placeOfFold(fold, sheet.folds))];
}

/** The sheet as a document of fields: what is no number is never sent, what the server refuses stands at its field. */
export function useSheetEditor(
  roundId: string,
  sites: Site[],
  folds: Fold[],
  sheet: Sheet,
  refetch: () => Promise<Sheet | undefined>,
): Editor {
  const { t } = useTranslation();
  const quantities = useQuantities();
  const send = useSendSheet(roundId);
  const places = useMemo(() => placesOf(sites, folds, sheet), [sites, folds, sheet]);
  /** Refusals stay at their fields until these are typed again. */
  const refused = useRef<Record<Cell, { says: string; text?: string }>>({});
  const sent = useRef<{ typed: Typed; texts: Texts }>(undefined);
  const read = (typing: Typing) => typed(places, sites, typing);
  const document = useDocument<Sheet, Typing>(sheet, {
    key: `tape-${roundId}`,
    revisionOf: ({ revision }) => revision,
    valueOf: typingOf,
    differing,
    fields: {
      named: ([part = "", key = ""]) =>
        part === "holder" ? t("tape.measuredBy") : cellName(places, key, t, quantities.length.unit),
      shown: ([part = "", key = ""], value) => (part === "holder" ? value : cellText(quantities, key, value)),
    },
    refetch,
    send: (known, typing) => {
      const now = read(typing);
      sent.current = { typed: now, texts: typing.texts };
      return send(known.revision, now.body);
    },
    complete: (saved) => {
      const now = sent.current;
      if (!now) return true;
      const problems = Object.entries(problemsByCell(saved.problems, now.typed));
      refused.current = Object.fromEntries(
        problems.map(([key, says]) => [key, { says, text: now.texts[key] }]),
      );
      return problems.length === 0 && now.typed.unreadable.length === 0;
    },
  });
  const { texts, holder } = document.value;
  const standing = Object.entries(refused.current).filter(([key, { text }]) => texts[key] === text);
  const change = (more: Texts, tag?: string) =>
    document.change({ texts: { ...texts, ...more }, holder }, tag);
  return {
    texts,
    holder,
    problems: Object.fromEntries(standing.map(([key, { says }]) => [key, says])),
    unreadable: read(document.value).unreadable,
    document,
    type: (key, text) => change({ [key]: text }, key),
    fill: (more) => change(more),
    hold: (name) => document.change({ texts, holder: name }, "holder"),
  };
}
