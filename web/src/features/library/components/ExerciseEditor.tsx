import { Button, Checkbox, Input, Select } from "antd";
import { type ReactNode, useState } from "react";
import { useTranslation } from "react-i18next";
import type { Atlas } from "../../../shared/api/atlas";
import { problemOf } from "../../../shared/api/client";
import { Dialog, Wrong } from "../../../shared/ui";
import { useSaveExercise } from "../api";
import {
  AXIAL,
  type Draft,
  draftOf,
  type Exercise,
  emptyDraft,
  exerciseOf,
  type Hardest,
  MOVEMENTS,
  SKILLS,
} from "../model";
import styles from "./ExerciseEditor.module.css";

interface Props {
  open: boolean;
  exercise?: Exercise;
  atlas: Atlas;
  revision: number;
  onClose: () => void;
}

/** Writes an exercise of the practice's own. What is wrong stands at its field, in the server's words. */
export function ExerciseEditor({ open, exercise, atlas, revision, onClose }: Props) {
  const { t } = useTranslation();
  const [draft, setDraft] = useState<Draft>(exercise ? draftOf(exercise) : emptyDraft);
  const saving = useSaveExercise();
  const problem = problemOf(saving.error);
  const wrong = (field: string) =>
    problem?.errors?.find(({ pointer }) => pointer.startsWith(`/exercise/${field}`))?.says;
  const set =
    <K extends keyof Draft>(field: K) =>
    (value: Draft[K]) =>
      setDraft({ ...draft, [field]: value });
  const save = () =>
    saving.mutate(
      { body: { revision, exercise: exerciseOf(draft, t("library.retiredWhy"), exercise) } },
      {
        onSuccess: () => {
          if (!exercise) setDraft(emptyDraft);
          onClose();
        },
      },
    );
  const regions = atlas.regions.map(({ id, name }) => ({ value: id, label: name }));
  const areas = atlas.areas.map((area) => ({ value: area, label: area }));
  const families = [...new Set(atlas.exercises.map(({ family }) => family))].sort();
  const many = (
    label: string,
    field: "main" | "half" | "quarter" | "equipment" | "joints" | "avoidPain",
    options: { value: string; label: string }[],
  ) => (
    <Select
      mode="multiple"
      aria-label={label}
      value={draft[field]}
      onChange={set(field)}
      options={options}
      optionFilterProp="label"
      className={styles.wide}
    />
  );
  return (
    <Dialog
      wide
      open={open}
      title={exercise ? t("library.editTitle", { name: exercise.name }) : t("library.addTitle")}
      onClose={onClose}
    >
      {problem && !problem.errors?.length && <Wrong>{problem.detail}</Wrong>}
      <div className={styles.form}>
        <Field label={t("library.name")} wrong={wrong("name") ?? wrong("id")}>
          <Input
            aria-label={t("library.name")}
            value={draft.name}
            onChange={(event) => set("name")(event.target.value)}
          />
        </Field>
        <Field label={t("library.family")} hint={t("library.familyHint")} wrong={wrong("family")}>
          <Select
            allowClear
            showSearch
            aria-label={t("library.family")}
            value={draft.family || undefined}
            onChange={(family) => set("family")(family ?? "")}
            options={families.map((family) => ({ value: family, label: family }))}
            className={styles.wide}
          />
        </Field>
        <Field label={t("library.main")} wrong={wrong("targets")}>
          {many(t("library.main"), "main", regions)}
        </Field>
        <Field label={t("library.half")}>{many(t("library.half"), "half", regions)}</Field>
        <Field label={t("library.quarter")}>{many(t("library.quarter"), "quarter", regions)}</Field>
        <Field label={t("library.equipment")} wrong={wrong("equipment")}>
          {many(
            t("library.equipment"),
            "equipment",
            atlas.equipment.map(({ id, name }) => ({ value: id, label: name })),
          )}
        </Field>
        <Field label={t("library.hardest")} wrong={wrong("hardest")}>
          <Select
            mode="multiple"
            aria-label={t("library.hardest")}
            value={draft.hardest}
            onChange={set("hardest")}
            options={(["L", "M", "S", "E"] as Hardest[]).map((id) => ({
              value: id,
              label: t(`library.hardestAt.${id}`),
            }))}
            className={styles.wide}
          />
        </Field>
        <Field label={t("library.stretch")}>
          <Select
            aria-label={t("library.stretch")}
            value={draft.stretch}
            onChange={set("stretch")}
            options={([0, 1, 2, 3] as const).map((value) => ({
              value,
              label: t(`library.stretchBy.${value}`),
            }))}
            className={styles.wide}
          />
        </Field>
        <Field label={t("library.hold")}>
          <Select
            aria-label={t("library.hold")}
            value={draft.stability}
            onChange={set("stability")}
            options={([0, 1, 2] as const).map((value) => ({ value, label: t(`library.stability.${value}`) }))}
            className={styles.wide}
          />
        </Field>
        <Field label={t("library.sides")}>
          <Select
            aria-label={t("library.sides")}
            value={draft.sides}
            onChange={set("sides")}
            options={(["one", "both", "either"] as const).map((value) => ({
              value,
              label: t(`library.sidesUse.${value}`),
            }))}
            className={styles.wide}
          />
        </Field>
        <Field label={t("library.effort")}>
          <Select
            aria-label={t("library.effort")}
            value={draft.effort}
            onChange={set("effort")}
            options={(["small", "isolation", "compound"] as const).map((value) => ({
              value,
              label: t(`library.efforts.${value}`),
            }))}
            className={styles.wide}
          />
        </Field>
        <Field label={t("library.counted")} wrong={wrong("reps")}>
          <span className={styles.range}>
            <Input
              aria-label={t("library.low")}
              value={draft.low}
              onChange={(event) => set("low")(event.target.value)}
            />
            –
            <Input
              aria-label={t("library.high")}
              value={draft.high}
              onChange={(event) => set("high")(event.target.value)}
            />
            <Select
              aria-label={t("library.counted")}
              value={draft.counted}
              onChange={set("counted")}
              options={(["reps", "seconds"] as const).map((value) => ({
                value,
                label: t(`library.countedIn.${value}`),
              }))}
            />
          </span>
        </Field>
        <Field label={t("library.movement")}>
          <Select
            aria-label={t("library.movement")}
            value={draft.movement}
            onChange={set("movement")}
            options={MOVEMENTS.map((value) => ({ value, label: t(`plan.movements.${value}`) }))}
          />
        </Field>
        <Field label={t("library.axial")} wrong={wrong("axial")}>
          <Select
            aria-label={t("library.axial")}
            value={draft.axial}
            onChange={set("axial")}
            options={AXIAL.map((value) => ({
              value,
              label: t(`library.axialOf.${value === 0.5 ? "half" : value}`),
            }))}
          />
        </Field>
        <Field label={t("library.skill")} wrong={wrong("skill")}>
          <Select
            aria-label={t("library.skill")}
            value={draft.skill}
            onChange={set("skill")}
            options={SKILLS.map((value) => ({ value, label: t(`library.skillOf.${value}`) }))}
          />
        </Field>
        <Field
          label={t("library.joints")}
          hint={t("library.jointsHint")}
          wrong={wrong("joints") ?? wrong("loads_joint")}
        >
          {many(t("library.joints"), "joints", areas)}
        </Field>
        <Field label={t("library.avoidPain")}>{many(t("library.avoidPain"), "avoidPain", areas)}</Field>
        <Field label={t("library.setUp")} wrong={wrong("set_up")}>
          <Input.TextArea
            aria-label={t("library.setUp")}
            rows={2}
            value={draft.setUp}
            onChange={(event) => set("setUp")(event.target.value)}
          />
        </Field>
        <Field label={t("library.cues")} hint={t("library.cuesHint")} wrong={wrong("cues")}>
          <Input.TextArea
            aria-label={t("library.cues")}
            rows={3}
            value={draft.cues}
            onChange={(event) => set("cues")(event.target.value)}
          />
        </Field>
      </div>
      <p>
        <Checkbox checked={draft.beginners} onChange={(event) => set("beginners")(event.target.checked)}>
          {t("library.notBeginners")}
        </Checkbox>
        {exercise && (
          <Checkbox checked={draft.retired} onChange={(event) => set("retired")(event.target.checked)}>
            {t("library.retire")}
          </Checkbox>
        )}
      </p>
      <Button type="primary" onClick={save} loading={saving.isPending}>
        {t("library.save")}
      </Button>
    </Dialog>
  );
}

function Field({
  label,
  hint,
  wrong,
  children,
}: {
  label: string;
  hint?: string;
  wrong?: string;
  children: ReactNode;
}) {
  return (
    <div className={styles.field}>
      <span>
        {label}
        {hint && <small className="quiet"> {hint}</small>}
      </span>
      {children}
      <Wrong>{wrong}</Wrong>
    </div>
  );
}
