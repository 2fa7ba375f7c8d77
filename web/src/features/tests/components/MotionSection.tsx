import { Button, Select } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { parseNumber } from "../../../shared/format";
import { ConflictNote, SaveState, useDocument } from "../../../shared/save";
import { SideMark, Wrong } from "../../../shared/ui";
import { useSendScreens } from "../api";
import type { Side } from "../model";
import { differing, type ScreenTyping, screenCell, screensOf, typingOf } from "../screens";
import { AngleDialog } from "./AngleDialog";
import styles from "./Tests.module.css";

type Client = Schemas["ClientView"];

interface Props {
  client: Client;
  screens: Schemas["Screen"][];
  refetch: () => Promise<Client | undefined>;
}

/** Ranges of motion: degrees typed, or three points on a still. They belong to the client and stand in the brief too. */
export function MotionSection({ client, screens, refetch }: Props) {
  const { t } = useTranslation();
  const send = useSendScreens(client.id);
  const ids = screens.map(({ id }) => id);
  const [still, setStill] = useState<{ screen: Schemas["Screen"]; side: Side }>();
  const document = useDocument<Client, ScreenTyping>(client, {
    key: `screens-${client.id}`,
    revisionOf: ({ revision }) => revision,
    valueOf: ({ brief }) => typingOf(brief.screens, ids),
    differing: (mine, theirs) => differing(mine, theirs, ids),
    refetch,
    send: (known, typing) => send(known, screensOf(typing, ids).screens),
    complete: (_, typing) => screensOf(typing, ids).unfinished.length === 0,
  });
  const { texts, blades } = document.value;
  const problems = Object.fromEntries(
    (document.refusal?.errors ?? []).map(({ pointer, says }) => [
      pointer.replace("/brief/screens/", "").replace("_deg/", "|"),
      says,
    ]),
  );
  const type = (cell: string, text: string) =>
    document.change({ texts: { ...texts, [cell]: text }, blades }, cell);
  return (
    <section aria-label={t("tests.motion")}>
      <h2 className={styles.heading}>{t("tests.motion")}</h2>
      <p>
        <SaveState
          state={document.state}
          failure={document.failure}
          undo={document.undo}
          redo={document.redo}
        />
      </p>
      <ConflictNote conflict={document.conflict} />
      {screens.map((screen) => (
        <fieldset key={screen.id} className={styles.screen} aria-label={screen.name}>
          <span title={screen.how}>
            {screen.name}
            <span className={`quiet ${styles.small}`}>
              {t("tests.normal", { degrees: screen.normal_low_deg })}
            </span>
          </span>
          {(["left", "right"] as const).map((side) => {
            const cell = screenCell(screen.id, side);
            const degrees = parseNumber(texts[cell] ?? "");
            return (
              <span key={side} className={styles.set}>
                <SideMark side={side} />
                <input
                  className="typed"
                  data-field={cell}
                  inputMode="numeric"
                  autoComplete="off"
                  aria-label={t("tests.degreesOf", { name: screen.name, side: t(`tape.sideOf.${side}`) })}
                  aria-invalid={problems[cell] !== undefined}
                  data-short={degrees !== undefined && degrees < screen.normal_low_deg}
                  value={texts[cell] ?? ""}
                  onChange={({ target }) => type(cell, target.value)}
                  onBlur={document.flush}
                />
                °
                <Button
                  type="text"
                  size="small"
                  aria-label={t("tests.stillOf", { name: screen.name, side: t(`tape.sideOf.${side}`) })}
                  title={t("tests.still")}
                  onClick={() => setStill({ screen, side })}
                >
                  ∠
                </Button>
              </span>
            );
          })}
          {(["left", "right"] as const).map((side) => {
            const says = problems[screenCell(screen.id, side)];
            return <Wrong key={side}>{says}</Wrong>;
          })}
        </fieldset>
      ))}
      <div className={styles.screen}>
        <span>{t("tests.blades")}</span>
        <Select
          aria-label={t("tests.blades")}
          allowClear
          placeholder={t("tests.notAsked")}
          value={blades === undefined ? undefined : blades ? "yes" : "no"}
          style={{ width: 130 }}
          onChange={(answer?: "yes" | "no") =>
            document.change({ texts, blades: answer === undefined ? undefined : answer === "yes" })
          }
          options={(["yes", "no"] as const).map((value) => ({ value, label: t(`tests.${value}`) }))}
        />
      </div>
      {still && (
        <AngleDialog
          screen={still.screen}
          side={still.side}
          onClose={() => setStill(undefined)}
          onTake={(degrees) => {
            type(screenCell(still.screen.id, still.side), String(degrees));
            setStill(undefined);
          }}
        />
      )}
    </section>
  );
}
