import { Button, Checkbox, Input, type InputRef, Select } from "antd";
import { memo, useDeferredValue, useMemo, useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { useSearchParams } from "react-router";
import { type Atlas, useAtlas, useNames } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { BodyFigure } from "../../../shared/figure";
import { Async, failed, Title } from "../../../shared/ui";
import { useMirror } from "../../../shared/ui/address";
import { useKeys } from "../../../shared/ui/keys";
import { useSteady } from "../../../shared/ui/steady";
import { useOwn } from "../api";
import { ExerciseEditor } from "../components/ExerciseEditor";
import { ExerciseRow } from "../components/ExerciseRow";
import { RegionCard } from "../components/RegionCard";
import { type Exercise, type Filter, filtered, type Hardest, type Listed } from "../model";
import styles from "./LibraryPage.module.css";

/** Regions and exercises to browse, and the practice's own exercises. */
export function LibraryPage() {
  const atlas = useAtlas();
  const own = useOwn();
  if (failed(atlas, own) || !atlas.data || !own.data) return <Async of={[atlas, own]} />;
  return <Library atlas={atlas.data} practice={own.data} />;
}

const HARDEST: Hardest[] = ["L", "M", "S", "E"];

/** What a link leads to. */
function filterIn(query: URLSearchParams, { kits }: Atlas): Filter {
  return {
    find: query.get("find") ?? "",
    hardest: HARDEST.find((one) => one === query.get("hardest")),
    kit: kits.find(({ id }) => id === query.get("kit"))?.id,
    stretched: query.get("stretched") === "yes",
  };
}

function Library({ atlas, practice }: { atlas: Atlas; practice: Schemas["PracticeView"] }) {
  const { t } = useTranslation();
  const find = useRef<InputRef>(null);
  const [query, setQuery] = useSearchParams();
  const [filter, setFilter] = useState(() => filterIn(query, atlas));
  useMirror({
    find: filter.find || undefined,
    hardest: filter.hardest,
    kit: filter.kit,
    stretched: filter.stretched ? "yes" : undefined,
  });
  const [editing, setEditing] = useState<Exercise | "new">();
  // The region and the exercise are part of the address, so that a link leads to them.
  const region = query.get("region") ?? undefined;
  const opened = query.get("exercise") ?? undefined;
  const show = (next: { region?: string; exercise?: string }) => {
    const after = new URLSearchParams(query);
    for (const [name, id] of Object.entries(next)) {
      if (id) after.set(name, id);
      else after.delete(name);
    }
    setQuery(after, { replace: true });
  };
  const pick = (id: string | undefined) => show({ region: id });
  useKeys({ find: () => find.current?.focus() });
  // What is typed stands there at once; the rows follow, and give way to the next letter.
  const shown = useDeferredValue(filter);
  const exercises = useMemo(() => filtered(atlas, { ...shown, region }), [atlas, shown, region]);
  const onOpen = useSteady((exercise: string | undefined) => show({ exercise }));
  const picked = atlas.regions.find(({ id }) => id === region);
  const own = useMemo(
    () => new Map(practice.settings.exercises.map((exercise) => [exercise.id, exercise])),
    [practice.settings.exercises],
  );
  return (
    <main className={styles.page}>
      <Title of={t("library.title")} />
      <header className={styles.head}>
        <h1>{t("library.title")}</h1>
        <Button onClick={() => setEditing("new")}>{t("library.add")}</Button>
      </header>
      <div className={styles.columns}>
        <aside aria-label={t("library.figure")}>
          <BodyFigure
            label={t("library.figure")}
            words={{ front: t("figure.front"), back: t("figure.back"), left: "L", right: "R" }}
            shade={(id) => ({ fill: "var(--level)", opacity: id === region ? 0.9 : 0.35 })}
            picked={region}
            onPick={(id) => pick(id === region ? undefined : id)}
            width={320}
          />
          {picked ? (
            <RegionCard region={picked} atlas={atlas} onClear={() => pick(undefined)} />
          ) : (
            <p className="quiet">{t("library.pickRegion")}</p>
          )}
        </aside>
        <section aria-label={t("library.exercises")}>
          <div className={styles.filters}>
            <Input
              ref={find}
              className={styles.find}
              allowClear
              value={filter.find}
              onChange={(event) => setFilter({ ...filter, find: event.target.value })}
              placeholder={t("library.find")}
              aria-label={t("library.find")}
            />
            <Select
              allowClear
              showSearch
              optionFilterProp="label"
              aria-label={t("library.region")}
              placeholder={t("library.anyRegion")}
              value={region}
              onChange={pick}
              popupMatchSelectWidth={false}
              className={styles.select}
              options={atlas.regions.map(({ id, name }) => ({ value: id, label: name }))}
            />
            <Select
              allowClear
              aria-label={t("library.hardest")}
              placeholder={t("library.anyHardest")}
              value={filter.hardest}
              onChange={(hardest) => setFilter({ ...filter, hardest })}
              popupMatchSelectWidth={false}
              className={styles.select}
              options={HARDEST.map((id) => ({ value: id, label: t(`library.hardestAt.${id}`) }))}
            />
            <Select
              allowClear
              aria-label={t("library.kit")}
              placeholder={t("library.anyKit")}
              value={filter.kit}
              onChange={(kit) => setFilter({ ...filter, kit })}
              popupMatchSelectWidth={false}
              className={styles.select}
              options={atlas.kits.map(({ id, name }) => ({ value: id, label: name }))}
            />
            <Checkbox
              checked={filter.stretched}
              onChange={(event) => setFilter({ ...filter, stretched: event.target.checked })}
            >
              {t("library.stretched")}
            </Checkbox>
          </div>
          <p className="quiet" role="status">
            {t("library.count", { count: exercises.length })}
            {picked && ` ${t("library.mainFirst", { region: picked.name })}`} {t("library.legend")}
          </p>
          {exercises.length === 0 && (
            <button
              type="button"
              className="text-button"
              onClick={() => {
                setFilter({ find: "", stretched: false });
                pick(undefined);
              }}
            >
              {t("library.all")}
            </button>
          )}
          <Rows
            exercises={exercises}
            atlas={atlas}
            region={region}
            opened={opened}
            own={own}
            onOpen={onOpen}
            onEdit={setEditing}
          />
        </section>
      </div>
      <ExerciseEditor
        key={typeof editing === "object" ? editing.id : "new"}
        open={editing !== undefined}
        exercise={typeof editing === "object" ? editing : undefined}
        atlas={atlas}
        revision={practice.revision}
        onClose={() => setEditing(undefined)}
      />
    </main>
  );
}

interface RowsProps {
  exercises: Listed[];
  atlas: Atlas;
  region?: string;
  opened?: string;
  /** The practice's own, by id. */
  own: ReadonlyMap<string, Exercise>;
  onOpen: (exercise: string | undefined) => void;
  onEdit: (exercise: Exercise) => void;
}

const Rows = memo(function Rows({ exercises, atlas, region, opened, own, onOpen, onEdit }: RowsProps) {
  const names = useNames();
  return (
    <ul className={styles.list}>
      {exercises.map((exercise) => {
        const ours = own.get(exercise.id);
        return (
          <ExerciseRow
            key={exercise.id}
            exercise={exercise}
            atlas={atlas}
            names={names}
            region={region}
            own={ours !== undefined}
            open={opened === exercise.id}
            onToggle={() => onOpen(opened === exercise.id ? undefined : exercise.id)}
            onEdit={ours && (() => onEdit(ours))}
          />
        );
      })}
    </ul>
  );
});
