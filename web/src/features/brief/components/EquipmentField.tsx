import { Button, Form, Segmented } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { NumberInput } from "../../../shared/ui";
import styles from "./EquipmentField.module.css";

interface Props {
  kits: Schemas["Kit"][];
  equipment: Schemas["Equipment"][];
}

type Place = "gym" | "home";

const FIELD: Record<Place, string | string[]> = { gym: "equipment", home: ["home", "equipment"] };

/** What there is to train with, at the gym and at home: a kit to start from, then item by item. */
export function EquipmentField({ kits, equipment }: Props) {
  const { t } = useTranslation();
  const form = Form.useFormInstance();
  const [place, setPlace] = useState<Place>("gym");
  const home = Form.useWatch<Schemas["HomeEntry"] | null | undefined>("home", form);
  const set = (field: string | string[], value: unknown) => form.setFieldValue(field, value);
  const items = equipment.filter(({ always }) => !always);
  return (
    <>
      <Segmented
        value={place}
        onChange={setPlace}
        aria-label={t("brief.place")}
        options={[
          { value: "gym", label: t("brief.places.gym") },
          {
            value: "home",
            label: home?.days_per_week
              ? t("brief.homeDays", { count: home.days_per_week })
              : t("brief.places.home"),
          },
        ]}
        className={styles.place}
      />
      <Form.Item name="home" hidden>
        <NumberInput />
      </Form.Item>
      {place === "home" && !home ? (
        <>
          <p className="quiet">{t("brief.noHome")}</p>
          <Button onClick={() => set("home", { days_per_week: 1, equipment: [] })}>
            {t("brief.addHome")}
          </Button>
        </>
      ) : (
        <>
          {place === "home" && (
            <div className={styles.home}>
              <Form.Item name={["home", "days_per_week"]} label={t("brief.homeDaysLabel")}>
                <NumberInput min={0} max={7} />
              </Form.Item>
              <Button type="text" onClick={() => set("home", undefined)}>
                {t("brief.removeHome")}
              </Button>
            </div>
          )}
          <fieldset className={styles.kits}>
            <legend>{t("brief.kit")}</legend>
            {kits.map((kit) => (
              <button key={kit.id} type="button" onClick={() => set(FIELD[place], kit.items)}>
                {kit.name}
              </button>
            ))}
          </fieldset>
          <Form.Item name={FIELD[place]} key={place}>
            <Toggles items={items} />
          </Form.Item>
        </>
      )}
      {place === "home" && (
        // Registered while the other place is shown, so that the form keeps it.
        <Form.Item name="equipment" hidden>
          <NumberInput />
        </Form.Item>
      )}
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
