import { core, standings } from "./en-core";
import { felt, form, log, pain, part, setUp, warmUp } from "./en-log";
import { sessions } from "./en-plan";
import { my, notes } from "./en-review";
import { figure } from "./en-sheets";

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
