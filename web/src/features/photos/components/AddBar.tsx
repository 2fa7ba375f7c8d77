import { Button, Dropdown } from "antd";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import type { Schemas } from "../../../shared/api/client";
import { PickFiles } from "../../../shared/ui";
import { useBooth } from "../api";
import styles from "./Uploads.module.css";

/** The poses the stand-in camera can hold. */
const BOOTH_POSES = ["F", "B", "SL", "SR", "SLA", "SRA", "FDB", "BDB", "FLS", "BLS"] as const;

interface Props {
  roundId: string;
  taken: string[];
  disabled: boolean;
  onAsk: () => void;
  onCamera: () => void;
  onFiles: (files: Iterable<File>) => void;
  onError: (error: unknown) => void;
}

/** The ways a picture comes in: from the client, files, the phone's camera, the stand-in camera. */
export function AddBar({ roundId, taken, disabled, onAsk, onCamera, onFiles, onError }: Props) {
  const { t } = useTranslation();
  const booth = useBooth();
  const shoot = (pose: Schemas["PhotoPose"]) =>
    booth.mutate({ params: { path: { round_id: roundId }, query: { pose } } }, { onError });
  const missing = BOOTH_POSES.filter((pose) => !taken.includes(pose));
  return (
    <div className={styles.bar}>
      <Link to="again">{t("photos.again")}</Link>
      <button type="button" className={styles.plain} disabled={disabled} onClick={onAsk}>
        {t("photos.ask.any")}
      </button>
      <Dropdown
        disabled={disabled || booth.isPending}
        trigger={["click"]}
        menu={{
          items: (missing.length > 0 ? missing : BOOTH_POSES).map((pose) => ({ key: pose, label: pose })),
          onClick: ({ key }) => shoot(key as Schemas["PhotoPose"]),
        }}
      >
        <button type="button" className={styles.plain} title={t("photos.boothHint")}>
          {booth.isPending ? `${t("photos.booth")}…` : t("photos.booth")}
        </button>
      </Dropdown>
      <span className={styles.camera}>
        <Button disabled={disabled} onClick={onCamera}>
          {t("photos.camera")}
        </Button>
      </span>
      <PickFiles
        accept="image/jpeg,image/png,image/webp"
        multiple
        aria-label={t("photos.add")}
        disabled={disabled}
        onPick={onFiles}
      >
        <Button type="primary" disabled={disabled}>
          {t("photos.add")}
        </Button>
      </PickFiles>
    </div>
  );
}
