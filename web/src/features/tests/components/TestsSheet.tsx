import { type KeyboardEvent, type ReactNode, useRef } from "react";
import { useTranslation } from "react-i18next";
import type { Atlas } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { ConflictNote, SaveState, useDocument, useUndoKeys } from "../../../shared/save";
import { useKeys } from "../../../shared/ui/keys";
import { useSendTests } from "../api";
import { differing, problemsByRow, type Typed, type Typing, typed, typingOf } from "../model";
import { FeelSection } from "./FeelSection";
import { HangSection } from "./HangSection";
import { StrengthSection } from "./StrengthSection";
import styles from "./Tests.module.css";

type Sheet = Schemas["TestsSheet"];

interface Props {
  roundId: string;
  atlas: Atlas;
  sheet: Sheet;
  refetch: () => Promise<Sheet | undefined>;
  /** Ranges of motion, which belong to the client. */
  motion: ReactNode;
}

/** Strength one side at a time, the hang, where it was felt; saved on the way. */
export function TestsSheet({ roundId, atlas, sheet, refetch, motion }: Props) {
  const { t } = useTranslation();
  const send = useSendTests(roundId);
  const sent = useRef<Typed>(undefined);
  const grid = useRef<HTMLFieldSetElement>(null);
  const document = useDocument<Sheet, Typing>(sheet, {
    key: `tests-${roundId}`,
    revisionOf: ({ revision }) => revision,
    valueOf: ({ tests }) => typingOf(tests),
    differing,
    fields: { named: ([part = ""]) => t(`tests.${part as keyof Typing}`) },
    refetch,
    send: (known, typing) => {
      sent.current = typed(typing);
      return send(known.revision, sent.current.tests);
    },
    complete: (saved) => saved.problems.length === 0 && (sent.current?.unfinished.length ?? 0) === 0,
  });
  const typing = document.value;
  const problems = sent.current ? problemsByRow(sheet.problems, sent.current) : {};
  const change = (part: Partial<Typing>, tag?: string) => document.change({ ...typing, ...part }, tag);
  useUndoKeys(document);
  const fields = () => [...(grid.current?.querySelectorAll<HTMLInputElement>("input[data-field]") ?? [])];
  useKeys({ firstEmpty: () => (fields().find((field) => !field.value) ?? fields()[0])?.focus() });
  const onKey = (event: KeyboardEvent) => {
    const here = fields().indexOf(event.target as HTMLInputElement);
    if (event.key !== "Enter" || here < 0) return;
    event.preventDefault();
    document.flush();
    fields()[here + (event.shiftKey ? -1 : 1)]?.focus();
  };
  const parts = { atlas, sheet, typing, problems, onChange: change, flush: document.flush };
  return (
    <fieldset ref={grid} className={styles.sheet} onKeyDown={onKey} aria-label={t("round.steps.tests")}>
      <div className={styles.bar}>
        <SaveState {...document} wrong={Object.keys(problems).length} />
      </div>
      <ConflictNote conflict={document.conflict} />
      <StrengthSection {...parts} />
      <div className={styles.pair}>
        <div>
          <HangSection {...parts} />
          {motion}
        </div>
        <FeelSection {...parts} />
      </div>
    </fieldset>
  );
}

/** What every section of the sheet is given. */
export interface SectionProps {
  atlas: Atlas;
  sheet: Sheet;
  typing: Typing;
  problems: Record<string, string[]>;
  onChange: (part: Partial<Typing>, tag?: string) => void;
  flush: () => void;
}
