import { App, Button, Checkbox, Form, Input } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { problemOf, type Schemas } from "../../../shared/api/client";
import { useMay } from "../../../shared/api/may";
import { today } from "../../../shared/format";
import { DateInput, Dialog } from "../../../shared/ui";
import { useWithdrawConsent } from "../api";
import styles from "./PainFields.module.css";

const PURPOSES = ["assessment", "sharing-with-client", "teaching"] as const;
/** Years below which nobody is photographed (the server refuses, too). */
const ADULT_YEARS = 18;

function isMinor(birth: string | undefined): boolean {
  if (!birth) return false;
  const grown = new Date(birth);
  grown.setFullYear(grown.getFullYear() + ADULT_YEARS);
  return grown.getTime() > Date.now();
}

/** Consent to photos: when and what for. Taking it back removes every picture, so that has a button of its own. */
export function ConsentField({ client }: { client?: Schemas["ClientView"] }) {
  const { t } = useTranslation();
  const { message } = App.useApp();
  const may = useMay();
  const form = Form.useFormInstance();
  const birth = Form.useWatch("birth_date", form) as string | undefined;
  const given = Form.useWatch("photo_consent", form) as Schemas["ConsentEntry"] | null | undefined;
  const withdrawing = useWithdrawConsent();
  const [asking, setAsking] = useState(false);
  // Nothing is ticked beforehand: consent stands once assessment is ticked, without which no picture may be kept.
  const [ticked, setTicked] = useState<string[]>();
  const stored = !!client?.brief.photo_consent;
  const withdraw = () => {
    if (!client) return;
    withdrawing.mutate(
      { params: { path: { client_id: client.id } }, body: { revision: client.revision } },
      {
        onSuccess: ({ pictures }) => {
          form.setFieldValue("photo_consent", undefined);
          message.success(t("consent.withdrawn", { count: pictures }));
        },
        onError: (error) => message.error(problemOf(error)?.detail ?? t("error.unknown")),
        onSettled: () => setAsking(false),
      },
    );
  };
  if (isMinor(birth)) return <p>{t("consent.minor")}</p>;
  return (
    <>
      {/* Registered even while nothing is given, so that the form keeps it. */}
      <Form.Item name="photo_consent" hidden>
        <Input />
      </Form.Item>
      {given ? (
        <>
          <Form.Item
            name={["photo_consent", "given_on"]}
            label={t("consent.given")}
            rules={[{ required: true }]}
          >
            <DateInput max={today()} />
          </Form.Item>
          <Form.Item name={["photo_consent", "purposes"]} label={t("consent.purposes")}>
            <Checkbox.Group
              options={PURPOSES.map((value) => ({
                value,
                label: t(`consent.purpose.${value}`),
                disabled: value === "assessment",
              }))}
            />
          </Form.Item>
          {may("withdraw") && (
            <Button
              className={styles.add}
              onClick={() => (stored ? setAsking(true) : form.setFieldValue("photo_consent", undefined))}
            >
              {t("consent.withdraw")}
            </Button>
          )}
        </>
      ) : (
        <>
          <p className="quiet">{t("consent.none")}</p>
          {ticked ? (
            <>
              <p>{t("consent.purposes")}</p>
              <Checkbox.Group
                value={ticked}
                options={PURPOSES.map((value) => ({ value, label: t(`consent.purpose.${value}`) }))}
                onChange={(purposes) => {
                  setTicked(purposes);
                  if (!purposes.includes("assessment")) return;
                  form.setFieldValue("photo_consent", { given_on: today(), purposes });
                  setTicked(undefined);
                }}
              />
              <p className="quiet">{t("consent.tick")}</p>
            </>
          ) : (
            <Button className={styles.add} onClick={() => setTicked([])}>
              {t("consent.record")}
            </Button>
          )}
        </>
      )}
      <Dialog open={asking} title={t("consent.withdraw")} onClose={() => setAsking(false)}>
        <p>{t("consent.withdrawSure", { name: client?.brief.name })}</p>
        <div style={{ display: "flex", gap: 12 }}>
          <Button danger type="primary" loading={withdrawing.isPending} onClick={withdraw}>
            {t("consent.withdrawYes")}
          </Button>
          <Button onClick={() => setAsking(false)}>{t("consent.keep")}</Button>
        </div>
      </Dialog>
    </>
  );
}
