import { Segmented, Select, Slider } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { day } from "../../../shared/format";
import { useUndoKeys } from "../../../shared/save";
import { shortcut } from "../../../shared/ui/acts";
import { useKeys } from "../../../shared/ui/keys";
import { saved, useDeletePhoto, useOutline, useOver, useSavePhoto } from "../api";
import { Brush } from "../components/Brush";
import { Facts } from "../components/Facts";
import { JudgePanel } from "../components/JudgePanel";
import { Loupe } from "../components/Loupe";
import { Marks } from "../components/Marks";
import { PhotoNotes } from "../components/PhotoNotes";
import { Stage } from "../components/Stage";
import { Strip } from "../components/Strip";
import tableStyles from "../components/Table.module.css";
import { Takes } from "../components/Takes";
import {
  earlierWith,
  framesOf,
  inPose,
  type LightTable,
  MODES,
  type Mode,
  type Photo,
  type Point,
  pathOf,
  TOOLS,
  type Tool,
} from "../model";
import { useJudging } from "../useJudging";
import { useMoved } from "../useMoved";
import styles from "./PhotosPage.module.css";

const BRUSH_PX = { min: 4, max: 60, first: 14 };

interface Props {
  table: LightTable;
  roundId: string;
  photo: Photo;
  /** All of this pose, newest first. */
  takes: Photo[];
  pose: string;
  region?: string;
  poses: { id: string; name: string }[];
  regionName: (id: string) => string;
  outlineSePct: number;
  onLook: (next: { region?: string; pose?: string; take?: string }) => void;
  onError: (error: unknown) => void;
}

/** The light table with its tools, and what is judged on it. */
export function Desk(props: Props) {
  const { table, roundId, photo, takes, pose, poses, regionName, outlineSePct, onLook, onError } = props;
  const { t } = useTranslation();
  const [mode, setMode] = useState<Mode>("beside");
  const [tool, setTool] = useState<Tool>("judge");
  const [thenRound, setThenRound] = useState<string>();
  const [brush, setBrush] = useState({ adds: true, radius: BRUSH_PX.first });
  const [active, setActive] = useState<string>();
  const savePhoto = useSavePhoto();
  const removePhoto = useDeletePhoto();
  const moves = useMoved(photo, onError);

  const questions = table.questions;
  const region = props.region ?? questions.find((one) => one.poses.includes(pose as never))?.region;
  const question = questions.find((one) => one.region === region);
  const earlier = earlierWith(table, roundId, pose);
  const thenOf = earlier.find((round) => round.round_id === thenRound) ?? earlier[0];
  const thenPhoto = thenOf && inPose(thenOf.photos, pose);
  const laid = useOver(thenPhoto, photo);
  const sidesKnown = typeof photo.mirrored === "boolean";
  const date = table.rounds.find((round) => round.round_id === roundId)?.date ?? "";
  const outline = useOutline(photo, tool === "brush");

  const { pick, rate, canRate } = useJudging({ ...props, region, question, onLook, onError });
  useKeys({
    mode: () => setMode(MODES[(MODES.indexOf(mode) + 1) % MODES.length] ?? "beside"),
    undoMark: moves.undo,
  });
  useUndoKeys(moves);

  const save = (change: Partial<Schemas["SavePhoto"]>) =>
    savePhoto.mutate(
      { params: { path: { photo_id: photo.id } }, body: { ...saved(photo), ...change } },
      {
        onError,
        onSuccess: () => {
          if (change.pose) onLook({ pose: change.pose });
        },
      },
    );
  const unsaid = (table.rounds.find((round) => round.round_id === roundId)?.photos ?? []).filter(
    (one) => typeof one.mirrored !== "boolean",
  );
  const sayMirrored = (mirrored: boolean, all: boolean) => {
    for (const one of all ? unsaid : [photo])
      savePhoto.mutate(
        { params: { path: { photo_id: one.id } }, body: { ...saved(one), mirrored } },
        { onError },
      );
  };

  const places: Record<string, Point> = { ...photo.measured?.landmarks, ...moves.moved.landmarks };
  const toolLayer =
    tool === "marks" && photo.measured ? (
      <Marks photo={photo} places={places} onMove={moves.move} onDone={moves.done} onActive={setActive} />
    ) : tool === "brush" && photo.measured ? (
      <>
        <path className={tableStyles.outlineTool} d={pathOf(outline.data?.lines ?? [])} />
        <Brush photo={photo} adds={brush.adds} radius={brush.radius} onStroke={moves.stroke} />
      </>
    ) : undefined;
  const loupe = tool === "marks" && active && places[active];
  const editing = tool !== "judge";
  return (
    <div className={styles.desk}>
      <div className={styles.work}>
        <div className={styles.tools}>
          <Segmented
            aria-label={t("photos.tool")}
            value={tool}
            onChange={setTool}
            options={TOOLS.map((value) => ({ value, label: t(`photos.tools.${value}`) }))}
          />
          {takes.length > 1 && <Takes takes={takes} shown={photo} onLook={onLook} onError={onError} />}
          {editing ? (
            <>
              <button
                type="button"
                disabled={!moves.canUndo}
                onClick={moves.undo}
                aria-keyshortcuts={shortcut("undoMark")}
              >
                {t("photos.undo")}
              </button>
              <button
                type="button"
                disabled={!moves.canRedo}
                onClick={moves.redo}
                aria-keyshortcuts="Control+Y"
              >
                {t("photos.redo")}
              </button>
              <button type="button" onClick={moves.reset}>
                {t("photos.back")}
              </button>
              {tool === "brush" && (
                <>
                  <Segmented
                    value={brush.adds}
                    onChange={(adds) => setBrush({ ...brush, adds })}
                    options={[
                      { value: true, label: t("photos.brushAdd") },
                      { value: false, label: t("photos.brushTake") },
                    ]}
                  />
                  <Slider
                    className={styles.brush}
                    min={BRUSH_PX.min}
                    max={BRUSH_PX.max}
                    value={brush.radius}
                    onChange={(radius) => setBrush({ ...brush, radius })}
                    ariaLabelForHandle={t("photos.brushSize")}
                  />
                </>
              )}
            </>
          ) : (
            <>
              <Segmented
                aria-label={t("photos.mode")}
                value={mode}
                onChange={setMode}
                options={MODES.map((value) => ({ value, label: t(`photos.modes.${value}`) }))}
              />
              {thenOf ? (
                <Select
                  aria-label={t("photos.against")}
                  variant="borderless"
                  value={thenOf.round_id}
                  popupMatchSelectWidth={false}
                  onChange={setThenRound}
                  options={earlier.map((round) => ({
                    value: round.round_id,
                    label: `${t("photos.against").toLowerCase()} ${day(round.date)}`,
                  }))}
                />
              ) : (
                <span className="quiet">{t("photos.noEarlier")}</span>
              )}
            </>
          )}
        </div>
        <Stage
          now={{ photo, date }}
          then={!editing && thenPhoto ? { photo: thenPhoto, date: thenOf.date } : undefined}
          laid={laid.data?.laid}
          mode={editing ? "beside" : mode}
          frames={framesOf(photo, canRate ? region : undefined)}
          tool={toolLayer}
          toolNotes={
            editing && (
              <>
                {loupe && <Loupe photo={photo} at={loupe} />}
                <p className={tableStyles.hint}>
                  {t(tool === "marks" ? "photos.marksHint" : "photos.brushHint")}
                </p>
              </>
            )
          }
          notesOn={(of) => (
            <PhotoNotes
              photo={of}
              warnings={of === photo ? laid.data?.laid.warnings : undefined}
              asks={of === photo && !editing}
              others={unsaid.length}
              onMirrored={sayMirrored}
            />
          )}
        />
        <Facts
          photo={photo}
          poses={poses}
          outlineSePct={outlineSePct}
          widths={thenPhoto ? laid.data?.widths : undefined}
          residualCm={laid.data?.laid.residual_cm}
          thenDate={thenOf?.date}
          onSave={save}
          onRemove={() =>
            removePhoto.mutate(
              { params: { path: { photo_id: photo.id } } },
              { onError, onSuccess: () => onLook({ take: undefined }) },
            )
          }
        />
      </div>
      <JudgePanel
        roundId={roundId}
        questions={questions}
        ratings={table.ratings}
        region={region}
        pose={pose}
        poseName={(id) => poses.find((one) => one.id === id)?.name ?? id}
        sidesKnown={sidesKnown}
        onPick={pick}
        onRate={rate}
        strip={
          region && canRate ? (
            <Strip table={table} roundId={roundId} region={region} name={regionName(region)} pose={pose} />
          ) : undefined
        }
      />
    </div>
  );
}
