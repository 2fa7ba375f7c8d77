import { Switch } from "antd";
import { useTranslation } from "react-i18next";
import { Dialog, Rows } from "../shared/ui";
import { keyLines } from "../shared/ui/acts";
import { singleKeys } from "../shared/ui/keys";

/** Keys with a modifier, or of a field: they are heard where they belong. */
const OTHERS = [
  ["palette", ["Ctrl K"]],
  ["next", ["Enter"]],
  ["level", ["F2"]],
  ["undo", ["Ctrl Z", "Ctrl Y"]],
  ["moveCard", ["Alt ←↑↓→"]],
] as const;

/** Every key of the application. */
export default function KeysDialog({ onClose }: { onClose: () => void }) {
  const { t } = useTranslation();
  return (
    <Dialog open onClose={onClose} title={t("keys.title")}>
      <p>
        <Switch
          size="small"
          defaultChecked={singleKeys.on()}
          onChange={singleKeys.turn}
          aria-label={t("keys.single")}
        />{" "}
        <span aria-hidden="true">{t("keys.single")}</span>
      </p>
      <Rows
        label={t("keys.title")}
        rows={[...keyLines(), ...OTHERS].map(([what, keys]) => ({ what, keys }))}
        rowKey={({ what }) => what}
        columns={[
          {
            key: "keys",
            names: true,
            of: ({ keys }) =>
              keys.map((key) => (
                <kbd
                  key={key}
                  style={{
                    border: "1px solid var(--hairline)",
                    padding: "0 7px",
                    marginRight: 5,
                    fontFamily: "inherit",
                  }}
                >
                  {key}
                </kbd>
              )),
          },
          { key: "what", of: ({ what }) => t(`keys.${what}`) },
        ]}
      />
    </Dialog>
  );
}
