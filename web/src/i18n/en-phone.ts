import { core, standings } from "./en-core";
import { felt, form, log, pain, part, setUp, warmUp } from "./en-log";
import { sessions } from "./en-plan";
import { figure } from "./en-sheets";
import { my, notes } from "./en-today";

export const phone = {
  ...core,
  felt,
  figure,
  form,
  log,
  my,
  notes,
  pain,
  part,
  plan: sessions,
  setUp,
  verdict: standings,
  warmUp,
};
