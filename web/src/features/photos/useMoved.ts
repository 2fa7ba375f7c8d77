// Landmarks and strokes of one picture while they are being moved: shown at once, saved when the hand rests, undone step by
// step. What was found is never changed.
import { useEffect, useRef, useState } from "react";
import { after, type History, redone, start, undone } from "../../shared/save/history";
import { saved, useSavePhoto } from "./api";
import { type Moved, type Photo, type Point, placed } from "./model";

const NOTHING: Moved = { landmarks: {}, strokes: [] };

export function useMoved(photo: Photo | undefined, onError: (error: unknown) => void) {
  const saving = useSavePhoto();
  const [draft, setDraft] = useState<{ id: string; moved: Moved }>();
  const inFlight = useRef(false);
  const waiting = useRef<Moved>(undefined);
  /** The newest revision the server gave: the picture itself may arrive a moment later. */
  const answered = useRef({ id: "", revision: 0 });
  const latest = useRef(photo);
  latest.current = photo;

  const moved = (draft && draft.id === photo?.id ? draft.moved : photo?.moved) ?? NOTHING;
  /** As it is drawn, also before it is drawn. */
  const drawn = useRef(moved);
  drawn.current = moved;
  /** Where the hand took hold. */
  const held = useRef<Moved>(undefined);
  const steps = useRef<{ id?: string; history: History<Moved> }>({ history: start(moved) });
  if (steps.current.id !== photo?.id) steps.current = { id: photo?.id, history: start(moved) };

  // Once the server's answer has arrived the draft has done its work.
  useEffect(() => {
    if (
      draft &&
      !inFlight.current &&
      !waiting.current &&
      JSON.stringify(draft.moved) === JSON.stringify(photo?.moved)
    )
      setDraft(undefined);
  }, [draft, photo]);

  const send = async (next: Moved) => {
    waiting.current = next;
    if (inFlight.current) return;
    inFlight.current = true;
    while (waiting.current && latest.current) {
      const { id } = latest.current;
      const newest = answered.current.id === id ? answered.current.revision : 0;
      const revision = Math.max(newest, latest.current.revision);
      const body = { ...saved(latest.current), revision, moved: waiting.current };
      waiting.current = undefined;
      try {
        const answer = await saving.mutateAsync({ params: { path: { photo_id: id } }, body });
        answered.current = { id, revision: answer.revision };
      } catch (error) {
        setDraft(undefined);
        onError(error);
      }
    }
    inFlight.current = false;
  };

  const show = (next: Moved) => {
    drawn.current = next;
    if (photo) setDraft({ id: photo.id, moved: next });
  };
  const step = (from: Moved, next: Moved) => {
    steps.current.history = after({ ...steps.current.history, now: from }, next);
    show(next);
    send(next);
  };
  const goTo = (history: History<Moved> | undefined) => {
    if (!history) return;
    steps.current.history = history;
    show(history.now);
    send(history.now);
  };
  const { history } = steps.current;
  return {
    moved,
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
    /** A landmark follows the hand; nothing is saved yet. */
    move: (name: string, at: Point) => {
      held.current ??= drawn.current;
      show(placed(drawn.current, name, at));
    },
    /** The hand rests. */
    done: () => {
      if (held.current) step(held.current, drawn.current);
      held.current = undefined;
    },
    stroke: (stroke: Moved["strokes"][number]) =>
      step(drawn.current, { ...drawn.current, strokes: [...drawn.current.strokes, stroke] }),
    undo: () => goTo(undone({ ...steps.current.history, now: drawn.current })),
    redo: () => goTo(redone({ ...steps.current.history, now: drawn.current })),
    /** Everything as it was found. */
    reset: () => step(drawn.current, NOTHING),
  };
}
