// Every single key and what it does, once: from here the pages listen, the list of keys is made and readers are told.

/** What stands in the list of keys; acts with the same words share a line. */
export type Help =
  | "help"
  | "today"
  | "clients"
  | "library"
  | "eye"
  | "practice"
  | "find"
  | "move"
  | "open"
  | "seen"
  | "step"
  | "round"
  | "bringUp"
  | "holdBack"
  | "lay"
  | "figure"
  | "empty"
  | "hang"
  | "judge"
  | "sitting"
  | "card"
  | "pickCards"
  | "inTurns"
  | "pictures";

interface Keyed {
  keys: readonly string[];
  help: Help;
}

/** By act, in the order of the list. `g c` is two keys in a row. */
export const ACTS = {
  help: { keys: ["?"], help: "help" },
  goToday: { keys: ["g d"], help: "today" },
  goClients: { keys: ["g c"], help: "clients" },
  goLibrary: { keys: ["g x"], help: "library" },
  goEye: { keys: ["g y"], help: "eye" },
  goPractice: { keys: ["g s"], help: "practice" },
  find: { keys: ["/"], help: "find" },
  next: { keys: ["j"], help: "move" },
  previous: { keys: ["k"], help: "move" },
  open: { keys: ["o"], help: "open" },
  seen: { keys: ["x"], help: "seen" },
  goBrief: { keys: ["g b"], help: "step" },
  goPhotos: { keys: ["g p"], help: "step" },
  goTape: { keys: ["g t"], help: "step" },
  goTests: { keys: ["g e"], help: "step" },
  goVerdict: { keys: ["g v"], help: "step" },
  goPlan: { keys: ["g w"], help: "step" },
  goLog: { keys: ["g l"], help: "step" },
  goReview: { keys: ["g r"], help: "step" },
  olderRound: { keys: ["["], help: "round" },
  newerRound: { keys: ["]"], help: "round" },
  bringUp: { keys: ["b"], help: "bringUp" },
  holdBack: { keys: ["h"], help: "holdBack" },
  order: { keys: ["s"], help: "lay" },
  fold: { keys: ["z"], help: "lay" },
  figure: { keys: ["f"], help: "figure" },
  firstEmpty: { keys: ["n"], help: "empty" },
  hang: { keys: [" "], help: "hang" },
  standing: { keys: ["1", "2", "3", "4", "5"], help: "judge" },
  sides: { keys: ["6", "7", "8", "9", "0"], help: "judge" },
  cannotTell: { keys: ["x"], help: "judge" },
  begin: { keys: ["n"], help: "sitting" },
  goOn: { keys: ["Enter", "n"], help: "sitting" },
  moreSets: { keys: ["+"], help: "card" },
  fewerSets: { keys: ["-"], help: "card" },
  lock: { keys: ["i"], help: "card" },
  swapCard: { keys: ["x"], help: "card" },
  takeOut: { keys: ["Delete"], help: "card" },
  pickDown: { keys: ["J"], help: "pickCards" },
  pickUp: { keys: ["K"], help: "pickCards" },
  write: { keys: ["e"], help: "pickCards" },
  join: { keys: ["u"], help: "inTurns" },
  part: { keys: ["U"], help: "inTurns" },
  mode: { keys: ["m"], help: "pictures" },
  alternate: { keys: [" "], help: "pictures" },
  larger: { keys: ["+"], help: "pictures" },
  smaller: { keys: ["-"], help: "pictures" },
  whole: { keys: ["f"], help: "pictures" },
  undoMark: { keys: ["u"], help: "pictures" },
} as const satisfies Record<string, Keyed>;

export type Act = keyof typeof ACTS;

/** What is done at an act; where several keys belong to it, which of them it was, from 0. */
export type Bindings = { [A in Act]?: (which: number) => void };

const spoken = (key: string): string => (key === " " ? "Space" : key);

/** The value of `aria-keyshortcuts`: one of its keys, or all. */
export const shortcut = (act: Act, which?: number): string => {
  const keys = ACTS[act].keys.map(spoken);
  return which === undefined ? keys.join(" ") : (keys[which] ?? "");
};

/** Lines of the list: the keys of all acts with the same words. */
export function keyLines(): [Help, string[]][] {
  const lines = new Map<Help, string[]>();
  for (const { keys, help } of Object.values(ACTS)) {
    const line = lines.get(help) ?? [];
    line.push(...keys.map(spoken).filter((key) => !line.includes(key)));
    lines.set(help, line);
  }
  return [...lines];
}
