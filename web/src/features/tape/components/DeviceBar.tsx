import { Switch } from "antd";
import { useTranslation } from "react-i18next";
import type { Devices } from "../useDevices";

/** Whether devices send into the sheet, what came last, and the way to the stand-ins. */
export function DeviceBar({ devices }: { devices: Devices }) {
  const { t } = useTranslation();
  const { on, connected, last } = devices;
  return (
    <p>
      <Switch size="small" checked={on} onChange={devices.turn} aria-label={t("devices.listen")} />{" "}
      {t("devices.listen")}
      <br />
      <span className="quiet" role="status">
        {on && (connected ? t("devices.open") : t("devices.closed"))}
        {on &&
          last &&
          ` · ${t("devices.last", { device: t(`devices.names.${last.device}`), value: last.value, unit: t(`devices.units.${last.device}`) })}`}
      </span>{" "}
      {on && (
        <a href="/stand-in" target="_blank" rel="noreferrer">
          {t("devices.standIn")}
        </a>
      )}
    </p>
  );
}
