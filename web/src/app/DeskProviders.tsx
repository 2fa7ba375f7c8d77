import { App, ConfigProvider } from "antd";
import enUS from "antd/locale/en_US";
import { type ReactNode, use, useMemo } from "react";
import { useFingers } from "../shared/ui/useMedia";
import { antdTheme } from "./theme";
import { ThemeChoice } from "./themeChoice";

/** Styles made at run time carry the nonce of the page, or the content policy refuses them. */
function pageNonce(): string | undefined {
  return document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce || undefined;
}

/** Lists that open from a field of a dialog stay inside: what is outside a modal dialog cannot be reached. */
const popupPlace = (opener?: HTMLElement): HTMLElement => opener?.closest("dialog") ?? document.body;

/** The component library in the application's colours; the phone's pages do without it. */
export function DeskProviders({ children }: { children: ReactNode }) {
  const { theme } = use(ThemeChoice);
  const fingers = useFingers();
  const csp = useMemo(() => ({ nonce: pageNonce() }), []);
  return (
    <ConfigProvider
      theme={antdTheme(theme, fingers)}
      locale={enUS}
      csp={csp}
      wave={{ disabled: true }}
      getPopupContainer={popupPlace}
    >
      <App>{children}</App>
    </ConfigProvider>
  );
}
