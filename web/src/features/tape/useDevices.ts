import { useState } from "react";
import { useFeed } from "../../shared/devices";
import { askDevice } from "./api";
import type { Device, Place, Sheet } from "./model";

interface Field {
  focused: () => HTMLInputElement | undefined;
  empty: (device: string) => HTMLInputElement | undefined;
  put: (field: HTMLInputElement, text: string) => void;
}

export interface Devices {
  on: boolean;
  connected: boolean;
  turn: (on: boolean) => void;
  last?: { device: Device; value: number };
  ask: (place: Place) => void;
}

const ON = "orthomer-devices";

/** Readings that devices send go to the field that has the cursor, or to the first empty one of their kind. */
export function useDevices(sheet: Sheet, fields: Field): Devices {
  const [on, setOn] = useState(() => localStorage.getItem(ON) === "on");
  const [last, setLast] = useState<Devices["last"]>();
  const connected = useFeed(on, (message) => {
    if (message.kind !== "read") return;
    setLast(message);
    const focused = fields.focused();
    const field = focused?.dataset.device === message.device ? focused : fields.empty(message.device);
    if (field) fields.put(field, String(message.value));
  });
  return {
    on,
    connected,
    last,
    turn: (next) => {
      localStorage.setItem(ON, next ? "on" : "off");
      setOn(next);
    },
    ask: (place) => {
      if (on) askDevice({ device: place.device, label: place.name, expected: expected(place, sheet) });
    },
  };
}

/** About what a reading will be: what was read already, else what it was last time. */
function expected(place: Place, sheet: Sheet): number | undefined {
  if (place.device === "calipers") {
    const now = sheet.fold_values.find(({ site }) => site === place.id)?.value_mm;
    return now ?? sheet.earlier_folds.find(({ site }) => site === place.id)?.value_mm;
  }
  const now = sheet.sites.find(({ site }) => site === place.id)?.value_cm;
  return now ?? sheet.earlier.find(({ site }) => site === place.id)?.value_cm;
}
