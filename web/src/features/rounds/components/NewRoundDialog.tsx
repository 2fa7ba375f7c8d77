import { Button, Form, Input } from "antd";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import { problemOf } from "../../../shared/api/client";
import { today, useQuantities } from "../../../shared/format";
import { DateInput, Dialog, NumberInput } from "../../../shared/ui";
import { useOpenRound } from "../api";

interface Props {
  clientId: string;
  open: boolean;
  holder: string;
  onClose: () => void;
}

interface Fields {
  date: string;
  measured_by: string;
  weight_kg?: number | null;
}

/** Opens the next round of a client and goes to its tape. */
export function NewRoundDialog({ clientId, open, holder, onClose }: Props) {
  const { t } = useTranslation();
  const { mass } = useQuantities();
  const navigate = useNavigate();
  const [form] = Form.useForm<Fields>();
  const opening = useOpenRound();
  const problem = problemOf(opening.error);
  const at = (pointer: string) => problem?.errors?.find((error) => error.pointer === pointer)?.says;
  const field = (pointer: string) => ({
    validateStatus: at(pointer) ? ("error" as const) : undefined,
    help: at(pointer),
  });
  const submit = (fields: Fields) =>
    opening.mutate(
      { params: { path: { client_id: clientId } }, body: fields },
      {
        // The page behind may send a client with a round elsewhere once this dialog is shut: go first.
        onSuccess: async (round) => {
          await navigate(`/clients/${clientId}/rounds/${round.id}/tape`);
          onClose();
        },
      },
    );
  return (
    <Dialog open={open} title={t("round.new")} onClose={onClose}>
      <Form
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={{ date: today(), measured_by: holder }}
        onFinish={submit}
      >
        <Form.Item name="date" label={t("round.date")} rules={[{ required: true }]} {...field("/date")}>
          <DateInput max={today()} />
        </Form.Item>
        <Form.Item
          name="measured_by"
          label={t("round.measuredBy")}
          rules={[{ required: true }]}
          {...field("/measured_by")}
        >
          <Input />
        </Form.Item>
        <Form.Item name="weight_kg" label={t("round.weight", { unit: mass.unit })} {...field("/weight_kg")}>
          <NumberInput min={1} step={0.1} quantity={mass} />
        </Form.Item>
        {problem && !problem.errors?.length && <p style={{ color: "var(--danger)" }}>{problem.detail}</p>}
        <Button type="primary" htmlType="submit" loading={opening.isPending}>
          {t("round.open")}
        </Button>
      </Form>
    </Dialog>
  );
}
