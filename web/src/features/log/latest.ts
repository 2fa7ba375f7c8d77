// What this device wrote last of each part of a session, so that two taps in a row build on one another instead of standing
// side by side: the list of what is kept is drawn anew only a moment later.
import { useRef } from "react";
import type { EntryView } from "./model";

interface Written<Part> {
  id: string;
  part: Part;
}

export interface Latest<Part> {
  /** What stands now of a part, with what a change of it follows. */
  of: (key: string, versions: EntryView[]) => { part?: Part; follows: string[] };
  wrote: (key: string, id: string, part: Part) => void;
}

export function useLatest<Part extends { kind: string }>(): Latest<Part> {
  const written = useRef(new Map<string, Written<Part>>());
  return {
    of: (key, versions) => {
      const own = written.current.get(key);
      const known = versions.some(({ entry }) => entry.id === own?.id);
      // Something newer than what was written here stands in the list only when the list knows of that too.
      const newer = own && versions.some(({ entry }) => entry.follows?.includes(own.id));
      if (own && !newer && (!known || versions.length === 1)) return { part: own.part, follows: [own.id] };
      const [first] = versions;
      return first
        ? { part: first.entry.part as unknown as Part, follows: [first.entry.id] }
        : { follows: [] };
    },
    wrote: (key, id, part) => {
      written.current.set(key, { id, part });
    },
  };
}
