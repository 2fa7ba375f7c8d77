// What can be gone to by name: clients, pages and exercises, best match first.

export interface Goal {
  id: string;
  name: string;
  /** What it is. */
  kind: "client" | "page" | "exercise" | "act";
  /** Its address, or what is done. */
  to: string | (() => void);
}

/** Without accents and case, so that it is found however it is typed. */
const plain = (text: string): string => text.normalize("NFD").replace(/\p{M}/gu, "").toLowerCase();

/** How well a name answers what was typed: at its beginning, at a word's, within; `undefined` where it does not. */
function rank(name: string, typed: string): number | undefined {
  const at = plain(name).indexOf(typed);
  if (at < 0) return undefined;
  if (at === 0) return 0;
  return /[\s,-]/.test(name[at - 1] ?? "") ? 1 : 2;
}

/** The goals that answer, best first and otherwise in their order; those without anything typed are pages and acts. */
export function answering(goals: Goal[], typed: string, most: number): Goal[] {
  const wanted = plain(typed.trim());
  if (!wanted) return goals.filter(({ kind }) => kind === "page" || kind === "act").slice(0, most);
  const ranked = goals.flatMap((goal) => {
    const found = rank(goal.name, wanted);
    return found === undefined ? [] : [{ goal, found }];
  });
  return ranked
    .sort((one, other) => one.found - other.found)
    .slice(0, most)
    .map(({ goal }) => goal);
}
