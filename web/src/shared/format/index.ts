export { day, dayName, dayPattern, moment, shortDay, shortMonths, today } from "./dates";
export {
  chance,
  degrees,
  hundredths,
  mm,
  parseNumber,
  parseSigned,
  percent,
  sd,
  sets,
  shortest,
  signed,
  tenths,
} from "./numbers";
export {
  METRIC,
  type Measures,
  OwnMeasures,
  PLAIN,
  type Quantities,
  type Quantity,
  quantitiesIn,
  useQuantities,
} from "./quantity";
export { keptText, shownText, useOwnText } from "./useOwnText";
