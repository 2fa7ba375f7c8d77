import { Button, Input, QRCode } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { problemOf, type Schemas } from "../../../shared/api/client";
import { Dialog, ErrorNote, Wrong } from "../../../shared/ui";
import { useConfirmFactor, useOfferFactor, useRemoveFactor } from "../api";

type Person = Schemas["PersonView"];

/** Sets up one's own second factor, or takes one away: one's own, or as the owner somebody's who lost their phone. */
export function SecondFactor({ person }: { person: Person }) {
  const { t } = useTranslation();
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button size="small" type="text" onClick={() => setOpen(true)}>
        {t(person.second_factor ? "practice.factor.on" : "practice.factor.off")}
      </Button>
      <Dialog
        open={open}
        title={t("practice.factor.title", { name: person.name })}
        onClose={() => setOpen(false)}
      >
        {open && (person.second_factor ? <TakeAway person={person} /> : <SetUp />)}
      </Dialog>
    </>
  );
}

function Password({ value, onChange }: { value: string; onChange: (value: string) => void }) {
  const { t } = useTranslation();
  return (
    <p>
      <label htmlFor="factor-password">{t("practice.factor.password")}</label>
      <Input.Password
        id="factor-password"
        autoComplete="current-password"
        value={value}
        onChange={({ target }) => onChange(target.value)}
      />
    </p>
  );
}

function Refusal({ error }: { error: unknown }) {
  const problem = problemOf(error);
  if (!problem) return null;
  return (
    <p>
      <Wrong>{problem.errors?.[0]?.says ?? problem.detail}</Wrong>
    </p>
  );
}

function SetUp() {
  const { t } = useTranslation();
  const offer = useOfferFactor();
  const confirm = useConfirmFactor();
  const [code, setCode] = useState("");
  const [password, setPassword] = useState("");
  if (confirm.data)
    return (
      <>
        <p>{t("practice.factor.codes")}</p>
        <pre>{confirm.data.codes.join("\n")}</pre>
      </>
    );
  if (!offer.data)
    return (
      <>
        <p>{t("practice.factor.what")}</p>
        {offer.error && <ErrorNote error={offer.error} />}
        <Button type="primary" loading={offer.isPending} onClick={() => offer.mutate({})}>
          {t("practice.factor.begin")}
        </Button>
      </>
    );
  const { secret, address } = offer.data;
  return (
    <>
      <p>{t("practice.factor.scan")}</p>
      <QRCode value={address} type="svg" bordered={false} />
      <p>
        <code>{secret.replace(/(.{4})/g, "$1 ").trim()}</code>
      </p>
      <p>
        <label htmlFor="factor-code">{t("practice.factor.code")}</label>
        <Input
          id="factor-code"
          inputMode="numeric"
          autoComplete="one-time-code"
          value={code}
          onChange={({ target }) => setCode(target.value)}
        />
      </p>
      <Password value={password} onChange={setPassword} />
      <Refusal error={confirm.error} />
      <Button
        type="primary"
        disabled={!code || !password}
        loading={confirm.isPending}
        onClick={() => confirm.mutate({ body: { secret, code, password } })}
      >
        {t("practice.factor.confirm")}
      </Button>
    </>
  );
}

function TakeAway({ person }: { person: Person }) {
  const { t } = useTranslation();
  const remove = useRemoveFactor();
  const [password, setPassword] = useState("");
  return (
    <>
      <p>{t(person.you ? "practice.factor.isOn" : "practice.factor.isOnOf", { name: person.name })}</p>
      <Password value={password} onChange={setPassword} />
      <Refusal error={remove.error} />
      <Button
        danger
        disabled={!password}
        loading={remove.isPending}
        onClick={() => remove.mutate({ params: { path: { account_id: person.id } }, body: { password } })}
      >
        {t("practice.factor.remove")}
      </Button>
    </>
  );
}
