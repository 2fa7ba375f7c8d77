import { Button, InputNumber } from "antd";
import { useRef, useState } from "react";
import { useTranslation } from "react-i18next";
import { $api, problemOf, type Schemas } from "../../../shared/api/client";
import { useFeed } from "../../../shared/devices";
import { Title, Wrong } from "../../../shared/ui";
import styles from "./StandInPage.module.css";

type Device = Schemas["Device"];

interface Setting {
  truth?: number;
  bias: number;
  noise_sd: number;
}

/** How devices of the trade err (common practice): a tape by some millimetres, calipers by half a millimetre. */
const DEVICES: Record<Device, Setting> = {
  tape: { bias: 0, noise_sd: 0.2 },
  gauge: { bias: 0, noise_sd: 0.1 },
  calipers: { bias: 0, noise_sd: 0.4 },
  scale: { bias: 0, noise_sd: 0.1 },
  dynamometer: { bias: 0, noise_sd: 1 },
};

/** Simulated devices: held to a true size they show it with their own bias and noise, and send it to the open sheet. */
export function StandInPage() {
  const { t } = useTranslation();
  const [asked, setAsked] = useState<{ device: Device; label: string }>();
  const [settings, setSettings] = useState(DEVICES);
  const set = (device: Device, change: Partial<Setting>) =>
    setSettings((all) => ({ ...all, [device]: { ...all[device], ...change } }));
  const connected = useFeed(true, (message) => {
    if (message.kind !== "asked") return;
    setAsked(message);
    if (typeof message.expected === "number") set(message.device, { truth: round(message.expected) });
  });
  return (
    <main className={styles.page}>
      <Title of={t("devices.title")} />
      <h1>{t("devices.title")}</h1>
      <p className="quiet">{t("devices.lead")}</p>
      <p role="status">
        {asked
          ? t("devices.waits", { label: asked.label })
          : connected
            ? t("devices.nobody")
            : t("devices.closed")}
      </p>
      <div className={styles.devices}>
        {(Object.keys(DEVICES) as Device[]).map((device) => (
          <DeviceCard
            key={device}
            device={device}
            setting={settings[device]}
            waited={asked?.device === device}
            onChange={(change) => set(device, change)}
          />
        ))}
      </div>
    </main>
  );
}

const round = (value: number): number => Math.round(10 * value) / 10;

interface CardProps {
  device: Device;
  setting: Setting;
  waited: boolean;
  onChange: (change: Partial<Setting>) => void;
}

function DeviceCard({ device, setting, waited, onChange }: CardProps) {
  const { t } = useTranslation();
  const reading = $api.useMutation("post", "/api/v1/devices/read");
  const button = useRef<HTMLButtonElement>(null);
  const unit = t(`devices.units.${device}`);
  const field = (key: keyof Setting, step: number) => (
    <div className={styles.field}>
      <span>{t(`devices.${key}`)}</span>
      <InputNumber
        aria-label={`${t(`devices.names.${device}`)}: ${t(`devices.${key}`)}`}
        value={setting[key]}
        step={step}
        suffix={unit}
        onChange={(value) => onChange({ [key]: value ?? undefined })}
        onPressEnter={() => button.current?.click()}
      />
    </div>
  );
  const read = () => {
    const { truth, bias, noise_sd } = setting;
    if (truth === undefined) return;
    reading.mutate({ body: { device, truth, bias: bias ?? 0, noise_sd: noise_sd ?? 0 } });
  };
  return (
    <section className={styles.device} data-waited={waited} aria-label={t(`devices.names.${device}`)}>
      <h2>{t(`devices.names.${device}`)}</h2>
      <output className={styles.display}>
        {reading.data ? reading.data.value.toFixed(1) : "–"} <small>{unit}</small>
      </output>
      {field("truth", 0.1)}
      {field("bias", 0.1)}
      {field("noise_sd", 0.1)}
      <Button
        ref={button}
        type={waited ? "primary" : "default"}
        disabled={setting.truth === undefined}
        onClick={read}
      >
        {t("devices.read")}
      </Button>
      {reading.error && <Wrong>{problemOf(reading.error)?.detail ?? t("error.unknown")}</Wrong>}
    </section>
  );
}
