import { Checkbox } from "antd";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { Dialog } from "../../../shared/ui";
import type { Choices } from "../model";

const PARTS: Schemas["Shared"][] = ["priorities", "standings", "sides", "girths"];

interface Props {
  choices: Choices;
  open: boolean;
  onToggle: (what: Schemas["Shared"]) => void;
  onClose: () => void;
}

/** What of this verdict the client is shown: nothing, until somebody chooses. */
export function ShareDialog({ choices, open, onToggle, onClose }: Props) {
  const { t } = useTranslation();
  return (
    <Dialog open={open} title={t("share.title")} onClose={onClose}>
      <p className="quiet">{t("share.hint")}</p>
      {PARTS.map((what) => (
        <p key={what}>
          <Checkbox checked={choices.share.includes(what)} onChange={() => onToggle(what)}>
            {t(`share.part.${what}`)}
          </Checkbox>
        </p>
      ))}
    </Dialog>
  );
}
