import fc from "fast-check";
import { expect, test } from "vitest";
import { METRIC, type Measures, quantitiesIn, saidIn } from "./quantity";
import { keptText, shownText } from "./useOwnText";

const own = (measures: Measures) => quantitiesIn(measures);
const inches = own({ length: "in" }).length;
const eighths = own({ length: "in-eighths" }).length;
const pounds = own({ mass: "lb" }).mass;

// The international inch is 2.54 cm and the international pound 0.45359237 kg, both exact since 1959.
test.each([
  [inches, "14.75", 37.465],
  [inches, "14,5", 36.83],
  [eighths, "14 1/8", 35.8775],
  [eighths, "14-1/2", 36.83],
  [eighths, "14½", 36.83],
  [eighths, "1/8", 0.3175],
  [eighths, "14.125", 35.8775],
  [pounds, "135", 61.23496995],
])("%o: %s is kept as %f", (quantity, typed, metric) => {
  expect(quantity.parse(typed)).toBeCloseTo(metric, 9);
});

test.each(["14 1/3", "14 1/", "abc", "1 2", ""])("“%s” is no number of inches", (typed) => {
  expect(eighths.parse(typed)).toBeUndefined();
});

test.each([
  [inches.text(37.4), "14.7"],
  [inches.typed(37.4), "14.7"],
  [inches.typed(14.75 * 2.54), "14.75"],
  [eighths.text(37.4), "14¾"],
  [eighths.typed(37.4), "14.7"],
  [eighths.text(0.1), "0"],
  [eighths.text(0.3175), "⅛"],
  [eighths.change(-0.7), "−¼"],
  [eighths.change(0.7), "+¼"],
  [pounds.full(22.5), "49.6 lb"],
  [own(METRIC).mass.full(22.5), "22.5 kg"],
])("%s is told as %s", (told, text) => {
  expect(told).toBe(text);
});

// What was typed comes back to the digit, in every unit: only so can a sheet be opened and saved without a change.
test("what was typed comes back to the digit", () => {
  const tenths = fc.integer({ min: 1, max: 9_999 }).map((n) => n / 100);
  const units: Measures[] = [
    { length: "cm", mass: "kg" },
    { length: "in", mass: "lb" },
  ];
  fc.assert(
    fc.property(tenths, fc.constantFrom(...units), (value, measures) => {
      for (const quantity of Object.values(quantitiesIn(measures))) {
        const kept = quantity.parse(String(value)) ?? Number.NaN;
        expect(quantity.typed(Number(JSON.parse(JSON.stringify(kept))))).toBe(String(value));
      }
    }),
  );
});

test("eighths come back as eighths", () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 800 }), (count) => {
      const text = eighths.text(eighths.from(count / 8));
      expect(eighths.of(eighths.parse(text) ?? Number.NaN)).toBeCloseTo(count / 8, 9);
    }),
  );
});

test.each([
  ["14.75", "37.465"],
  ["14 1/", "14 1/"],
  ["", ""],
])("“%s” in a field is kept as “%s”", (typed, kept) => {
  expect(keptText(typed, inches)).toBe(kept);
  expect(shownText(kept, inches)).toBe(typed);
});

test.each([
  [
    "373.4 cm is outside 15 to 75 cm for arm-flexed; did you mean 37.3 cm?",
    "147 in is outside 5.9 to 29.5 in for arm-flexed; did you mean 14.7 in?",
  ],
  ["a load of 700 kg is out of range", "a load of 1543.2 lb is out of range"],
  ["With 1 to 1.5 kg, slowly.", "With 2.2 to 3.3 lb, slowly."],
  ["the sides differ by 9.0 %", "the sides differ by 9.0 %"],
])("a sentence of the server is told in own units: %s", (sentence, told) => {
  expect(saidIn(own({ length: "in", mass: "lb" }), sentence)).toBe(told);
  expect(saidIn(own(METRIC), sentence)).toBe(sentence);
});
