import { Button } from "antd";
import { useTranslation } from "react-i18next";
import { $api } from "../../../shared/api/client";
import { useMay } from "../../../shared/api/may";
import { useSetUp } from "../../../shared/api/setUp";
import { ErrorNote } from "../../../shared/ui";

interface Props {
  clientId: string;
  exercise: string;
  /** As it stands on the bench, by name. */
  numbers: Record<string, number>;
}

/** Keeps the bench's set-up for the client whose card led here: their cards and their phone have it from then on. */
export function KeepSetUp({ clientId, exercise, numbers }: Props) {
  const { t } = useTranslation();
  const may = useMay();
  const client = $api.useQuery("get", "/api/v1/clients/{client_id}", {
    params: { path: { client_id: clientId } },
  });
  const { kept, fields, saved, error, keep } = useSetUp(clientId, exercise);
  if (!may("log") || !client.data || !kept || !fields) return null;
  const own = Object.entries(numbers).filter(([name]) => fields.some((field) => field.name === name));
  const there = own.length > 0 && own.every(([name, value]) => kept.numbers?.[name] === value);
  const { name } = client.data.brief;
  if (own.length === 0) return <p className="quiet">{t("library.bench.noNumber", { name })}</p>;
  return (
    <p>
      <Button disabled={there} onClick={() => keep({ numbers: Object.fromEntries(own) })}>
        {t("library.bench.keep", { name })}
      </Button>{" "}
      <span role="status">{there && t(saved ? "library.bench.kept" : "library.bench.isKept")}</span>
      {error ? <ErrorNote error={error} /> : null}
    </p>
  );
}
