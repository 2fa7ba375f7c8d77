import { useTranslation } from "react-i18next";
import { Dialog } from "../shared/ui";

const KEYS: [
  string[],
  (
    | "help"
    | "today"
    | "seen"
    | "clients"
    | "find"
    | "move"
    | "open"
    | "step"
    | "round"
    | "bringUp"
    | "holdBack"
    | "next"
    | "judge"
    | "practice"
    | "library"
    | "eye"
    | "empty"
    | "level"
    | "undo"
    | "hang"
    | "lay"
    | "figure"
    | "pictures"
    | "card"
    | "moveCard"
    | "pickCards"
    | "inTurns"
  ),
][] = [
  [["?"], "help"],
  [["g", "d"], "today"],
  [["g", "c"], "clients"],
  [["g", "x"], "library"],
  [["g", "e"], "eye"],
  [["g", "s"], "practice"],
  [["Ctrl Z", "Ctrl Y"], "undo"],
  [["/"], "find"],
  [["j", "k"], "move"],
  [["o"], "open"],
  [["x"], "seen"],
  [["g", "b…r"], "step"],
  [["[", "]"], "round"],
  [["b"], "bringUp"],
  [["h"], "holdBack"],
  [["s", "z"], "lay"],
  [["f"], "figure"],
  [["n"], "empty"],
  [["Enter"], "next"],
  [["F2"], "level"],
  [["Space"], "hang"],
  [["1–5", "6–0", "x"], "judge"],
  [["-", "+", "i", "x", "Del"], "card"],
  [["Alt ←↑↓→"], "moveCard"],
  [["J", "K", "e"], "pickCards"],
  [["u", "U"], "inTurns"],
  [["m", "Space", "+", "-", "f"], "pictures"],
];

/** Every key of the application. */
export function KeysDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { t } = useTranslation();
  return (
    <Dialog open={open} onClose={onClose} title={t("keys.title")}>
      <table>
        <tbody>
          {KEYS.map(([keys, what]) => (
            <tr key={what}>
              <th
                scope="row"
                style={{
                  textAlign: "left",
                  padding: "4px 20px 4px 0",
                  verticalAlign: "top",
                  whiteSpace: "nowrap",
                }}
              >
                {keys.map((key) => (
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
                ))}
              </th>
              <td>{t(`keys.${what}`)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Dialog>
  );
}
