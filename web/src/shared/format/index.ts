export { day, dayName, moment, shortDay, today } from "./dates";
export { chance, cm, degrees, kg, mm, parseNumber, parseSigned, percent, sd, sets, signed } from "./numbers";
