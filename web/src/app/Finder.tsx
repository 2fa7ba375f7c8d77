import { useDeferredValue, useId, useState } from "react";
import { useTranslation } from "react-i18next";
import { useLocation, useNavigate } from "react-router";
import { useClients } from "../features/clients/api";
import { narrowingOf } from "../features/clients/model";
import { useAtlas } from "../shared/api/atlas";
import { answering, type Goal } from "./goals";
import type { Act } from "./Palette";
import styles from "./Palette.module.css";

const EVERYONE = narrowingOf(new URLSearchParams());
/** Goals shown at once. */
const SHOWN = 12;
const PAGES = ["today", "clients", "library", "eye", "practice", "tour"] as const;
const STEPS = ["brief", "photos", "tape", "tests", "verdict", "plan", "log", "review"] as const;

interface Props {
  onClose: () => void;
  acts: Act[];
}

/** The field and what answers it. */
export default function Finder({ onClose, acts }: Props) {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const id = useId();
  const [typed, setTyped] = useState("");
  const [picked, setPicked] = useState(0);
  const goals = answering(useGoals(useDeferredValue(typed), acts), typed, SHOWN);
  const at = Math.min(picked, goals.length - 1);
  const go = (goal: Goal | undefined) => {
    if (!goal) return;
    onClose();
    if (typeof goal.to === "string") navigate(goal.to);
    else goal.to();
  };
  const step = (by: number) => setPicked((at + by + goals.length) % Math.max(1, goals.length));
  return (
    <>
      <input
        // It is there a moment after the dialog, which would have given it the focus.
        // biome-ignore lint/a11y/noAutofocus: whoever opened it came to type
        autoFocus
        className={styles.find}
        role="combobox"
        aria-label={t("palette.find")}
        aria-expanded="true"
        aria-controls={id}
        aria-activedescendant={goals[at] && `${id} ${goals[at].id}`}
        autoComplete="off"
        value={typed}
        placeholder={t("palette.find")}
        onChange={({ target }) => {
          setTyped(target.value);
          setPicked(0);
        }}
        onKeyDown={(event) => {
          if (event.key === "ArrowDown") step(1);
          else if (event.key === "ArrowUp") step(-1);
          else if (event.key === "Enter") go(goals[at]);
          else return;
          event.preventDefault();
        }}
      />
      <div id={id} className={styles.list} role="listbox" aria-label={t("palette.title")}>
        {goals.map((goal, index) => (
          // biome-ignore lint/a11y/useKeyWithClickEvents: the field above has the focus and the keys
          <div
            key={goal.id}
            id={`${id} ${goal.id}`}
            role="option"
            tabIndex={-1}
            aria-selected={index === at}
            onPointerMove={() => setPicked(index)}
            onClick={() => go(goal)}
          >
            {goal.name} <span className="quiet">{t(`palette.${goal.kind}`)}</span>
          </div>
        ))}
      </div>
      {goals.length === 0 && <p className="quiet">{t("palette.none")}</p>}
    </>
  );
}

function useGoals(typed: string, acts: Act[]): Goal[] {
  const { t } = useTranslation();
  const { pathname } = useLocation();
  const atlas = useAtlas();
  const clients = useClients({ ...EVERYONE, find: typed });
  // On a round its own steps are pages too.
  const round = /^\/clients\/[^/]+\/rounds\/[^/]+/.exec(pathname)?.[0];
  return [
    ...(round ? STEPS : []).map(
      (step): Goal => ({ id: step, name: t(`round.steps.${step}`), kind: "page", to: `${round}/${step}` }),
    ),
    ...PAGES.map((page): Goal => ({ id: page, name: t(`app.${page}`), kind: "page", to: `/${page}` })),
    { id: "new-client", name: t("clients.add"), kind: "page", to: "/clients/new" },
    ...acts.map(({ name, act }): Goal => ({ id: name, name, kind: "act", to: act })),
    ...(clients.data?.items ?? []).map(
      ({ id, name }): Goal => ({ id, name, kind: "client", to: `/clients/${id}` }),
    ),
    ...(atlas.data?.exercises ?? []).map(
      ({ id, name }): Goal => ({ id, name, kind: "exercise", to: `/library?exercise=${id}` }),
    ),
  ];
}
