import { Form, Select } from "antd";
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
  const items = equipment.filter(({ always }) => !always);
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
      <Form.Item name="equipment" label={t("brief.items")}>
        <Select
          mode="multiple"
          optionFilterProp="label"
          options={items.map(({ id, name }) => ({ value: id, label: name }))}
        />
      </Form.Item>
    </>
  );
}
