// Landmarks and strokes of one picture while they are being moved: shown at once, saved when the hand rests, undone step by
// step. What was found is never changed.
import { useEffect, useRef, useState } from "react";
import { saved, useSavePhoto } from "./api";
import { type Moved, type Photo, type Point, placed } from "./model";

export function useMoved(photo: Photo | undefined, onError: (error: unknown) => void) {
  const saving = useSavePhoto();
  const [draft, setDraft] = useState<{ id: string; moved: Moved }>();
  const past = useRef<{ id: string; steps: Moved[] }>({ id: "", steps: [] });
  const inFlight = useRef(false);
  const waiting = useRef<Moved>(undefined);
  /** The newest revision the server gave: the picture itself may arrive a moment later. */
  const answered = useRef({ id: "", revision: 0 });
  const latest = useRef(photo);
  latest.current = photo;

  const moved: Moved = (draft && draft.id === photo?.id ? draft.moved : photo?.moved) ?? {
    landmarks: {},
    strokes: [],
  };
  if (past.current.id !== photo?.id) past.current = { id: photo?.id ?? "", steps: [] };

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

  const show = (next: Moved) => photo && setDraft({ id: photo.id, moved: next });
  const remember = () => past.current.steps.push(moved);
  const before = useRef<Moved>(undefined);
  return {
    moved,
    canUndo: past.current.steps.length > 0,
    /** A landmark follows the hand; nothing is saved yet. */
    move: (name: string, at: Point) => {
      before.current ??= moved;
      show(placed(moved, name, at));
    },
    /** The hand rests. */
    done: () => {
      if (!before.current) return;
      past.current.steps.push(before.current);
      before.current = undefined;
      setDraft((now) => {
        if (now) send(now.moved);
        return now;
      });
    },
    stroke: (stroke: Moved["strokes"][number]) => {
      remember();
      const next = { ...moved, strokes: [...moved.strokes, stroke] };
      show(next);
      send(next);
    },
    undo: () => {
      const last = past.current.steps.pop();
      if (!last) return;
      show(last);
      send(last);
    },
    /** Everything as it was found. */
    reset: () => {
      remember();
      const nothing = { landmarks: {}, strokes: [] };
      show(nothing);
      send(nothing);
    },
  };
}
