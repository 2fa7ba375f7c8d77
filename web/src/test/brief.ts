import { type Brief, emptyBrief } from "../features/brief/model";

/** A brief with an answer to everything that is asked. */
export const brief: Brief = {
  ...emptyBrief,
  name: "Ada Elmwood",
  sex: "female",
  birth_date: "1992-04-01",
  height_cm: 170,
  dominant_hand: "right",
  experience: "beginner",
};
