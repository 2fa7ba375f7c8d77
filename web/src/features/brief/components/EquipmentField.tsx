import { Form } from "antd";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import styles from "./EquipmentField.module.css";

interface Props {
  kits: Schemas["Kit"][];
  equipment: Schemas["Equipment"][];
}

/** What there is to train with: a kit to start from, then item by item. */
export function EquipmentField({ kits, equipment }: Props) {
  const { t } = useTranslation();
  const form = Form.useFormInstance();
  return (
    <>
      <fieldset className={styles.kits}>
        <legend>{t("brief.kit")}</legend>
        {kits.map((kit) => (
          <button key={kit.id} type="button" onClick={() => form.setFieldValue("equipment", kit.items)}>
            {kit.name}
          </button>
        ))}
      </fieldset>
      <Form.Item name="equipment">
        <Toggles items={equipment.filter(({ always }) => !always)} />
      </Form.Item>
    </>
  );
}

interface TogglesProps {
  items: Schemas["Equipment"][];
  value?: string[];
  onChange?: (value: string[]) => void;
}

/** Every item in sight; those that are there are inked. The form gives value and change. */
function Toggles({ items, value = [], onChange }: TogglesProps) {
  const { t } = useTranslation();
  const toggle = (id: string) =>
    onChange?.(value.includes(id) ? value.filter((one) => one !== id) : [...value, id]);
  return (
    <fieldset className={styles.toggles} aria-label={t("brief.items")}>
      {items.map(({ id, name }) => (
        <button key={id} type="button" aria-pressed={value.includes(id)} onClick={() => toggle(id)}>
          {name}
        </button>
      ))}
    </fieldset>
  );
}
