import { Checkbox, Select } from "antd";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { type Narrowing, ORDERS } from "../model";
import styles from "./Narrow.module.css";

interface Props {
  narrowing: Narrowing;
  tags: string[];
  parts: Schemas["PartName"][];
  onChange: (change: Partial<Narrowing>) => void;
}

/** Whose round is due, what is behind, a tag; and the order of the list. */
export function Narrow({ narrowing, tags, parts, onChange }: Props) {
  const { t } = useTranslation();
  const { tag, behind, due, order } = narrowing;
  return (
    <fieldset className={styles.narrow} aria-label={t("clients.narrow")}>
      <Checkbox checked={due} onChange={({ target }) => onChange({ due: target.checked })}>
        {t("clients.due")}
      </Checkbox>
      <Select
        allowClear
        value={behind || undefined}
        placeholder={t("clients.behind")}
        aria-label={t("clients.behind")}
        popupMatchSelectWidth={false}
        options={parts.map(({ area, name }) => ({ value: area, label: t("clients.behindOf", { name }) }))}
        onChange={(area) => onChange({ behind: area ?? "" })}
      />
      {tags.length > 0 && (
        <Select
          allowClear
          showSearch
          value={tag || undefined}
          placeholder={t("clients.tag")}
          aria-label={t("clients.tag")}
          popupMatchSelectWidth={false}
          options={tags.map((value) => ({ value, label: value }))}
          onChange={(chosen) => onChange({ tag: chosen ?? "" })}
        />
      )}
      <span className={styles.order}>
        <Select
          value={order}
          aria-label={t("clients.order")}
          popupMatchSelectWidth={false}
          options={ORDERS.map((value) => ({ value, label: t(`clients.orders.${value}`) }))}
          onChange={(value) => onChange({ order: value })}
        />
      </span>
    </fieldset>
  );
}
