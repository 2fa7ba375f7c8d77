import { Button, Select } from "antd";
import { useTranslation } from "react-i18next";
import { useLetCount } from "../api";
import type { Photo } from "../model";

interface Props {
  /** All pictures of a pose, newest first. */
  takes: Photo[];
  shown: Photo;
  onLook: (next: { take?: string }) => void;
  onError: (error: unknown) => void;
}

/** Several pictures of one pose: which is looked at, and which of them counts. */
export function Takes({ takes, shown, onLook, onError }: Props) {
  const { t } = useTranslation();
  const letCount = useLetCount();
  const name = (counts: boolean, at: number) =>
    t(counts ? "photos.takeCounts" : "photos.takeOf", { number: takes.length - at, count: takes.length });
  return (
    <>
      <Select
        aria-label={t("photos.take")}
        variant="borderless"
        value={shown.id}
        popupMatchSelectWidth={false}
        onChange={(take) => onLook({ take })}
        options={takes.map(({ id, counts }, at) => ({ value: id, label: name(counts, at) }))}
      />
      {!shown.counts && (
        <Button
          size="small"
          title={t("photos.letCountHint")}
          loading={letCount.isPending}
          onClick={() => letCount.mutate({ params: { path: { photo_id: shown.id } } }, { onError })}
        >
          {t("photos.letCount")}
        </Button>
      )}
    </>
  );
}
