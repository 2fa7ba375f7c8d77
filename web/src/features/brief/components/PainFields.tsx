import { Button, Form, InputNumber, Select } from "antd";
import { useTranslation } from "react-i18next";
import styles from "./PainFields.module.css";

const AREAS = ["shoulder", "elbow", "wrist", "low-back", "neck", "knee", "hip", "ankle"] as const;

/** Painful areas, and the shoulder screen that rules exercises out. */
export function PainFields() {
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
                    options={(["left", "right"] as const).map((value) => ({
                      value,
                      label: t(`brief.hands.${value}`),
                    }))}
                  />
                </Form.Item>
                <Form.Item name={[name, "level"]} label={t("brief.painLevel")} rules={[{ required: true }]}>
                  <InputNumber min={0} max={10} />
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
      <Form.Item label={t("brief.extension")} extra={t("brief.extensionHint")}>
        <div className={styles.extension}>
          {(["left", "right"] as const).map((side) => (
            <Form.Item key={side} name={["screens", "shoulder_extension_deg", side]} noStyle>
              <InputNumber
                min={0}
                max={120}
                prefix={t(`brief.hands.${side}`)}
                aria-label={`${t("brief.extension")} ${side}`}
              />
            </Form.Item>
          ))}
        </div>
      </Form.Item>
    </>
  );
}
