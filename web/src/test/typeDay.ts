import { fireEvent } from "@testing-library/react";

/** Types a day into a date field. */
export function typeDay(field: HTMLElement, day: string): void {
  fireEvent.change(field, { target: { value: day } });
}
