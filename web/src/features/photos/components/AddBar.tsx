import { Button, Dropdown } from "antd";
import { useRef } from "react";
import { useTranslation } from "react-i18next";
import { Link } from "react-router";
import type { Schemas } from "../../../shared/api/client";
import { useBooth } from "../api";
import styles from "./Uploads.module.css";

/** The poses the stand-in camera can hold. */
const BOOTH_POSES = ["F", "B", "SL", "SR", "FDB", "BDB", "FLS", "BLS"] as const;

interface Props {
  roundId: string;
  taken: string[];
  disabled: boolean;
  onFiles: (files: Iterable<File>) => void;
  onError: (error: unknown) => void;
}

/** The ways a picture comes in: files, the phone's camera, the stand-in camera. */
export function AddBar({ roundId, taken, disabled, onFiles, onError }: Props) {
  const { t } = useTranslation();
  const files = useRef<HTMLInputElement>(null);
  const camera = useRef<HTMLInputElement>(null);
  const booth = useBooth();
  const chosen = (input: HTMLInputElement) => {
    onFiles(input.files ?? []);
    input.value = "";
  };
  const shoot = (pose: Schemas["PhotoPose"]) =>
    booth.mutate({ params: { path: { round_id: roundId }, query: { pose } } }, { onError });
  const missing = BOOTH_POSES.filter((pose) => !taken.includes(pose));
  return (
    <div className={styles.bar}>
      <input
        ref={files}
        type="file"
        accept="image/jpeg,image/png,image/webp"
        multiple
        hidden
        onChange={({ currentTarget }) => chosen(currentTarget)}
      />
      <input
        ref={camera}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        onChange={({ currentTarget }) => chosen(currentTarget)}
      />
      <Link to="again">{t("photos.again")}</Link>
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
      <Button className={styles.camera} disabled={disabled} onClick={() => camera.current?.click()}>
        {t("photos.camera")}
      </Button>
      <Button type="primary" disabled={disabled} onClick={() => files.current?.click()}>
        {t("photos.add")}
      </Button>
    </div>
  );
}
