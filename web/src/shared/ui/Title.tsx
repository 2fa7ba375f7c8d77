import { useTranslation } from "react-i18next";

/** The page's name in the window's title: what is open first, the application last. */
export function Title({ of }: { of: string }) {
  const { t } = useTranslation();
  return <title>{`${of} · ${t("app.name")}`}</title>;
}
