import { Form } from "antd";
import { useEffect, useRef } from "react";
import type { Atlas } from "../../../shared/api/atlas";
import type { Schemas } from "../../../shared/api/client";
import { ConflictNote, SaveState, useUndoKeys } from "../../../shared/save";
import { type Brief, differing, emptyBrief, fieldPath } from "../model";
import { useBriefDocument } from "../useBriefDocument";
import { BriefForm } from "./BriefForm";

interface Props {
  atlas: Atlas;
  client: Schemas["ClientView"];
  refetch: () => Promise<Schemas["ClientView"] | undefined>;
}

/** A stored client's brief: every change is kept on the way, and what is wrong stands at its field. */
export function KeptBrief({ atlas, client, refetch }: Props) {
  const [form] = Form.useForm<Brief>();
  const document = useBriefDocument(client, refetch);
  const shown = useRef<Brief>(document.value);
  useUndoKeys(document);
  const { value, refusal } = document;
  const change = (brief: Brief) => {
    if (differing(brief, shown.current) === 0) return;
    // The form's own object goes on changing; the document keeps what it was.
    shown.current = structuredClone(brief);
    document.change(shown.current);
  };

  // A step back, or somebody else's brief: the form shows it.
  useEffect(() => {
    if (value === shown.current) return;
    shown.current = value;
    form.resetFields();
    form.setFieldsValue({ ...emptyBrief, ...structuredClone(value) });
  }, [value, form]);
  useEffect(() => {
    const errors = refusal?.errors ?? [];
    const wrong = errors.map(({ pointer, says }) => ({ name: fieldPath(pointer) as never, errors: [says] }));
    const fine = form
      .getFieldsError()
      .filter(({ errors }) => errors.length > 0)
      .map(({ name }) => ({ name: name as never, errors: [] }));
    form.setFields([...fine, ...wrong]);
  }, [refusal, form]);
  return (
    <BriefForm
      form={form}
      atlas={atlas}
      client={client}
      initial={{ ...emptyBrief, ...structuredClone(document.value) }}
      onChange={change}
      head={
        <>
          <SaveState {...document} />
          <ConflictNote conflict={document.conflict} />
        </>
      }
    />
  );
}
