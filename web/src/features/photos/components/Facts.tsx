import { Button, InputNumber, Select } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { LeanBar } from "../../../shared/charts";
import { hundredths, percent, shortDay, useQuantities } from "../../../shared/format";
import { Dialog, Rows } from "../../../shared/ui";
import type { Photo } from "../model";
import styles from "./Facts.module.css";

interface Props {
  photo: Photo;
  poses: { id: string; name: string }[];
  /** Error of left against right in an outline, %. */
  outlineSePct: number;
  widths?: Schemas["WidthChange"][];
  residualCm?: number;
  thenDate?: string;
  onSave: (change: Partial<Schemas["SavePhoto"]>) => void;
  onRemove: () => void;
}

/** What a picture is and what was measured in it: pose, camera, widths then and now, limbs left against right. */
export function Facts(props: Props) {
  const { photo, poses, outlineSePct, widths, residualCm, thenDate, onSave, onRemove } = props;
  const { t } = useTranslation();
  const { length } = useQuantities();
  const [removing, setRemoving] = useState(false);
  const measured = photo.measured;
  const passed = measured?.quality.filter((check) => check.ok) ?? [];
  const mirror = photo.mirrored ?? undefined;
  const rows = (measured?.widths ?? []).map(({ level, cm }) => ({
    key: level,
    name: t(`photos.level.${level}`, { defaultValue: level }),
    value: length.text(cm),
    change: widths?.find((one) => one.level === level),
  }));
  const taper = measured?.taper;
  if (taper)
    rows.push({ key: "taper", name: t("photos.taper"), value: hundredths(taper), change: undefined });
  return (
    <section className={styles.facts}>
      <div className={styles.row}>
        <Select
          size="small"
          aria-label={t("photos.pose")}
          value={photo.pose ?? undefined}
          popupMatchSelectWidth={false}
          options={poses.map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(pose) => onSave({ pose })}
        />
        {photo.pose_guessed && photo.pose && <span className="quiet">{t("photos.guessed")}</span>}
        <Select
          size="small"
          aria-label={t("photos.mirrorAsk")}
          value={mirror}
          placeholder={t("photos.mirrorAsk")}
          popupMatchSelectWidth={false}
          options={[
            { value: false, label: t("photos.notMirrored") },
            { value: true, label: t("photos.mirrored") },
          ]}
          onChange={(mirrored) => onSave({ mirrored })}
        />
        <InputNumber
          key={photo.id}
          size="small"
          aria-label={t("photos.distance")}
          prefix={t("photos.distance")}
          style={{ width: 150 }}
          min={0.5}
          max={15}
          step={0.1}
          defaultValue={photo.distance_m ?? undefined}
          onBlur={({ target }) => {
            const typed = Number.parseFloat(target.value);
            const distance_m = Number.isFinite(typed) ? typed : undefined;
            if (distance_m !== (photo.distance_m ?? undefined)) onSave({ distance_m });
          }}
        />
        {typeof photo.perspective_pct === "number" && (
          <span className="quiet">
            {t("photos.perspective", {
              percent: percent(photo.perspective_pct),
              near: `${length.typed(10)} ${length.unit}`,
            })}
          </span>
        )}
        <button type="button" className={styles.remove} onClick={() => setRemoving(true)}>
          {t("photos.remove")}
        </button>
      </div>
      {measured?.person && (
        <div className={styles.numbers}>
          {measured.widths.length > 0 && (
            <Rows
              caption={t("photos.widths", { unit: length.unit })}
              rows={rows}
              rowKey={({ key }) => key}
              columns={[
                { key: "name", names: true, of: ({ name }) => name },
                { key: "value", numbers: true, of: ({ value }) => value },
                {
                  key: "change",
                  whole: true,
                  of: ({ change }) => change && thenDate && <Change change={change} date={thenDate} />,
                },
              ]}
            />
          )}
          {measured.limbs.length > 0 && (
            <Rows
              caption={t("photos.limbs")}
              rows={measured.limbs}
              rowKey={({ segment }) => segment}
              columns={[
                {
                  key: "limb",
                  names: true,
                  of: ({ segment }) => t(`photos.segment.${segment}`, { defaultValue: segment }),
                },
                {
                  key: "left",
                  of: ({ left_width_cm }) => (
                    <span style={{ color: "var(--left)" }}>{length.text(left_width_cm)}</span>
                  ),
                },
                {
                  key: "bar",
                  of: ({ left_width_cm: left, right_width_cm: right }) => (
                    <LeanBar
                      percent={(200 * (left - right)) / (left + right)}
                      alone
                      se={outlineSePct}
                      width={120}
                      height={16}
                    />
                  ),
                },
                {
                  key: "right",
                  of: ({ right_width_cm }) => (
                    <span style={{ color: "var(--right)" }}>{length.text(right_width_cm)}</span>
                  ),
                },
              ]}
            />
          )}
          <details>
            <summary>{t("photos.checks", { count: passed.length })}</summary>
            <ul>
              {passed.map((check) => (
                <li key={check.check}>{check.says}</li>
              ))}
              {residualCm !== undefined && (
                <li>{t("photos.residual", { length: `${length.text(residualCm)} ${length.unit}` })}</li>
              )}
            </ul>
          </details>
        </div>
      )}
      <Dialog open={removing} title={t("photos.remove")} onClose={() => setRemoving(false)}>
        <p>{t("photos.removeSure")}</p>
        <div className={styles.row}>
          <Button
            danger
            type="primary"
            onClick={() => {
              setRemoving(false);
              onRemove();
            }}
          >
            {t("photos.removeYes")}
          </Button>
          <Button onClick={() => setRemoving(false)}>{t("photos.keep")}</Button>
        </div>
      </Dialog>
    </section>
  );
}

function Change({ change, date }: { change: Schemas["WidthChange"]; date: string }) {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const says = t("photos.changed", {
    change: length.change(change.now_cm - change.then_cm),
    date: shortDay(date),
  });
  const noise = t(change.real ? "photos.realChange" : "photos.noise", { length: length.text(change.mdc_cm) });
  return (
    <span title={noise} style={change.real ? { color: "var(--ink)", fontWeight: 700 } : undefined}>
      {says} <span className="quiet">±{length.text(change.mdc_cm)}</span>
    </span>
  );
}
