import { useState } from "react";
import { parseSigned } from "./numbers";
import type { Quantity } from "./quantity";

/** A kept text as it is typed in a person's unit; what is no number stays as it is. */
export function shownText(metric: string, { typed, unit }: Quantity): string {
  const value = unit === "cm" || unit === "kg" ? undefined : parseSigned(metric);
  return value === undefined ? metric : typed(value);
}

/** What is typed in a person's unit as it is kept: metric, to the digit; what is no number stays as it is, and is told as that. */
export function keptText(typed: string, { parseSigned: parse, unit }: Quantity): string {
  const value = unit === "cm" || unit === "kg" ? undefined : parse(typed);
  return value === undefined ? typed : String(value);
}

/** A field whose text is kept metric and typed in a person's own unit: what is being typed stays as it is under the fingers. */
export function useOwnText(metric: string, put: (metric: string) => void, quantity?: Quantity) {
  const [now, setNow] = useState<{ metric: string; typed: string }>();
  if (!quantity) return { value: metric, type: put };
  const value = now?.metric === metric ? now.typed : shownText(metric, quantity);
  return {
    value,
    type: (typed: string) => {
      const kept = keptText(typed, quantity);
      setNow({ metric: kept, typed });
      put(kept);
    },
  };
}
