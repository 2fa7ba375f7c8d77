import { expect, test } from "vitest";
import * as captured from "./en-capture";
import { phone } from "./en-phone";

// The phone's pages and what they are put together from; the parts of the desk's log among them say words of the same objects.
const sources = import.meta.glob<string>(
  [
    "../app/{PhoneApp,PhoneGate,BrokenNote}.tsx",
    "../features/{capture,my}/**/*.tsx",
    "../features/capture/useTaking.ts",
    "../features/log/components/{ExercisePage,FeltSheet,FormSheet,PainSheet,PartRows,RestBar,SchemeClockView,SessionRun,SetRow,SetUpSheet,SideBySide,SyncLine,TrainingLog,WarmUp,WeekList}.tsx",
    "../features/notes/components/Conversation.tsx",
    "../shared/ui/{Dialog,ErrorNote,NewVersion,SideMark,StandingMark,Title}.tsx",
    "../shared/figure/*.tsx",
    "!../**/*.test.tsx",
  ],
  { query: "?raw", import: "default", eager: true },
);

const keys = Object.entries(sources).flatMap(([file, text]) =>
  [...text.matchAll(/\bt\(\s*["`]([a-zA-Z.]+)/g)].map(([, key = ""]) => [key, file] as const),
);

test("there are words to look for", () => {
  expect(keys.length).toBeGreaterThan(60);
});

test.each(keys)("the phone has the words of %s, said in %s", (key) => {
  // Up to where the rest is put together; a plural ends in _one and _other.
  const found = key
    .split(".")
    .filter(Boolean)
    .reduce<unknown>(
      (at, part) => {
        const words = at as Record<string, unknown> | undefined;
        return words?.[part] ?? words?.[`${part}_one`];
      },
      { ...phone, ...captured },
    );
  expect(found).toBeDefined();
});
