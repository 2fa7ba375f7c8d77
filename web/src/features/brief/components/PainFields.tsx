import { Button, Form, Select } from "antd";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { NumberInput } from "../../../shared/ui";
import styles from "./PainFields.module.css";

const AREAS = ["shoulder", "elbow", "wrist", "low-back", "neck", "knee", "hip", "ankle"] as const;
const SIDES = ["left", "right"] as const;

/** Painful areas, and the screens that rule exercises out. */
export function PainFields({ screens }: { screens: Schemas["Screen"][] }) {
  const { t } = useTranslation();
  return (
    <>
      <Form.List name="pain">
        {(fields, { add, remove }) => (
          <>
            {fields.map(({ key, name }) => (
              <div key={key} className={styles.pain}>
                <Form.Item name={[name, "area"]} label={t("brief.area")} rules={[{ required: true }]}>
                  <Select options={AREAS.map((value) => ({ value, label: t(`brief.areas.${value}`) }))} />
                </Form.Item>
                <Form.Item name={[name, "side"]} label={t("brief.side")}>
                  <Select
                    allowClear
                    placeholder={t("brief.both")}
                    options={SIDES.map((value) => ({ value, label: t(`brief.hands.${value}`) }))}
                  />
                </Form.Item>
                <Form.Item name={[name, "level"]} label={t("brief.painLevel")} rules={[{ required: true }]}>
                  <NumberInput min={0} max={10} />
                </Form.Item>
                <Button type="text" onClick={() => remove(name)}>
                  {t("brief.painRemove")}
                </Button>
              </div>
            ))}
            <Button onClick={() => add({ area: "shoulder", level: 1 })} className={styles.add}>
              {t("brief.painAdd")}
            </Button>
          </>
        )}
      </Form.List>
      <div className={styles.screens}>
        <span />
        <span>{t("brief.hands.left")}</span>
        <span>{t("brief.hands.right")}</span>
        {screens.map((screen) => (
          <ScreenFields key={screen.id} screen={screen} />
        ))}
        <span>{t("tests.blades")}</span>
        <Form.Item name={["screens", "blades_retract"]} noStyle>
          <Select
            allowClear
            aria-label={t("tests.blades")}
            placeholder={t("tests.notAsked")}
            className={styles.blades}
            options={[
              { value: true, label: t("tests.yes") },
              { value: false, label: t("tests.no") },
            ]}
          />
        </Form.Item>
      </div>
      <p className="quiet">{t("brief.screensHint")}</p>
    </>
  );
}

/** A range by side, degrees; what is wrong with it stands below it. Of one side alone nothing can be kept, which is said. */
function ScreenFields({ screen }: { screen: Schemas["Screen"] }) {
  const { t } = useTranslation();
  const measured = Form.useWatch<Partial<Record<"left" | "right", number | null>> | undefined>([
    "screens",
    `${screen.id}_deg`,
  ]);
  const typed = SIDES.filter((side) => typeof measured?.[side] === "number");
  const missing = (side: "left" | "right") =>
    typed.length === 1 && !typed.includes(side)
      ? { validateStatus: "error" as const, help: t("brief.otherSide") }
      : {};
  return (
    <>
      <span title={screen.how}>{screen.name}, °</span>
      {SIDES.map((side) => (
        <Form.Item
          key={side}
          name={["screens", `${screen.id}_deg`, side]}
          className={styles.degrees}
          {...missing(side)}
        >
          <NumberInput aria-label={`${screen.name} ${side}`} placeholder={`≥ ${screen.normal_low_deg}`} />
        </Form.Item>
      ))}
    </>
  );
}
