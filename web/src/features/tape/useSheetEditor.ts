import { useEffect, useRef, useState } from "react";
import { problemOf, type Schemas } from "../../shared/api/client";
import { useSaveSheet } from "./api";
import { draftOf, dropDraft, keepDraft } from "./draft";
import {
  type Cell,
  differing,
  problemsByCell,
  type Site,
  type Texts,
  type Typed,
  textsOf,
  typed,
} from "./model";

type Sheet = Schemas["TapeSheet"];

/** A pause in typing after which the sheet is saved. */
const PAUSE_MS = 350;

export interface Conflict {
  why: string;
  differ: number;
  takeTheirs: () => void;
  keepMine: () => void;
}

export interface Editor {
  texts: Texts;
  holder: string;
  problems: Record<Cell, string>;
  unreadable: Cell[];
  state: "saved" | "saving" | "unsaved" | "partly" | "failed" | "offline";
  failure?: string;
  conflict?: Conflict;
  type: (cell: Cell, text: string) => void;
  hold: (name: string) => void;
  /** Saves at once, as when a field is left. */
  flush: () => void;
}

/**
 * What is typed on the sheet, saved after a pause. Saves go one after another, each from the revision the last one gave, so
 * that this tab never conflicts with itself; when another one saved in between, nothing is sent until someone decides.
 */
export function useSheetEditor(
  roundId: string,
  sites: Site[],
  sheet: Sheet,
  refetch: () => Promise<Sheet | undefined>,
): Editor {
  const draft = useRef(draftOf(roundId)).current;
  const [texts, setTexts] = useState<Texts>(() => ({ ...textsOf(sheet.entries), ...draft }));
  const [holder, setHolder] = useState(sheet.measured_by);
  const [dirty, setDirty] = useState(draft !== undefined);
  const [problems, setProblems] = useState<Record<Cell, string>>({});
  const [failure, setFailure] = useState<{ kind: "failed" | "offline"; why?: string }>();
  const [theirs, setTheirs] = useState<{ why: string; sheet: Sheet }>();
  const saving = useSaveSheet(roundId);
  const inFlight = useRef(false);
  const [pending, setPending] = useState(false);
  const revision = useRef(sheet.revision);
  const latest = useRef({ texts, holder });
  latest.current = { texts, holder };

  const failed = async (error: unknown, sent: Typed) => {
    const problem = problemOf(error);
    if (problem?.status === 409) {
      const stored = await refetch();
      if (stored && differing(sent.entries, stored.entries) > 0)
        setTheirs({ why: problem.detail, sheet: stored });
      else if (stored) revision.current = stored.revision;
      return;
    }
    setFailure(problem ? { kind: "failed", why: problem.detail } : { kind: "offline" });
  };

  const save = () => {
    // The mutation's own state reaches the next render a moment late; two saves from one revision would conflict.
    if (inFlight.current || theirs) return;
    inFlight.current = true;
    setPending(true);
    const sent = typed(sites, latest.current.texts);
    const sentTexts = latest.current.texts;
    setDirty(false);
    setFailure(undefined);
    const succeeded = (saved: Sheet) => {
      revision.current = saved.revision;
      setProblems(problemsByCell(saved.problems, sent.cells));
      const complete = saved.problems.length === 0 && sent.unreadable.length === 0;
      if (complete && latest.current.texts === sentTexts) dropDraft(roundId);
    };
    saving
      .mutateAsync({
        params: { path: { round_id: roundId } },
        body: { revision: revision.current, measured_by: latest.current.holder, entries: sent.entries },
      })
      .then(succeeded, (error) => {
        setDirty(true);
        return failed(error, sent);
      })
      .finally(() => {
        inFlight.current = false;
        setPending(false);
      });
  };
  const saveNow = useRef(save);
  saveNow.current = save;

  useEffect(() => {
    if (!dirty || failure || theirs || pending) return;
    const timer = setTimeout(() => saveNow.current(), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [dirty, failure, theirs, pending]);

  const changed = (next: { texts?: Texts; holder?: string }) => {
    if (next.texts) {
      setTexts(next.texts);
      keepDraft(roundId, next.texts);
    }
    if (next.holder !== undefined) setHolder(next.holder);
    setFailure(undefined);
    setDirty(true);
  };

  const conflict = theirs && {
    why: theirs.why,
    differ: differing(typed(sites, texts).entries, theirs.sheet.entries),
    takeTheirs: () => {
      revision.current = theirs.sheet.revision;
      setTexts(textsOf(theirs.sheet.entries));
      setProblems({});
      dropDraft(roundId);
      setDirty(false);
      setTheirs(undefined);
    },
    keepMine: () => {
      revision.current = theirs.sheet.revision;
      setTheirs(undefined);
      setDirty(true);
    },
  };
  const unreadable = typed(sites, texts).unreadable;
  const wrong = Object.keys(problems).length + unreadable.length;
  const state = failure?.kind ?? (pending ? "saving" : dirty ? "unsaved" : wrong > 0 ? "partly" : "saved");
  return {
    texts,
    holder,
    problems,
    unreadable,
    state,
    failure: failure?.why,
    conflict,
    type: (key, text) => {
      setProblems(({ [key]: _, ...rest }) => rest);
      changed({ texts: { ...latest.current.texts, [key]: text } });
    },
    hold: (name) => changed({ holder: name }),
    flush: () => dirty && saveNow.current(),
  };
}
