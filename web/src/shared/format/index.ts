export { day, dayName, shortDay, today } from "./dates";
export { chance, cm, percent, sd, sets, signed } from "./numbers";
