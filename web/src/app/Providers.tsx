import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { App, ConfigProvider } from "antd";
import enUS from "antd/locale/en_US";
import { type ReactNode, useLayoutEffect, useMemo } from "react";
import { antdTheme, applyPalette } from "./theme";
import { ThemeChoice, useThemeChoice } from "./themeChoice";

// A browser that thinks it is offline may still reach a server in the same house: every request is tried, and fails if it must.
const ALWAYS = { networkMode: "always" } as const;
const queryClient = new QueryClient({
  defaultOptions: { queries: { ...ALWAYS, retry: false, staleTime: 5_000 }, mutations: ALWAYS },
});

/** Styles made at run time carry the nonce of the page, or the content policy refuses them. */
function pageNonce(): string | undefined {
  return document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce || undefined;
}

export function Providers({ children }: { children: ReactNode }) {
  const choice = useThemeChoice();
  const csp = useMemo(() => ({ nonce: pageNonce() }), []);
  useLayoutEffect(() => applyPalette(choice.theme), [choice.theme]);
  return (
    <ThemeChoice value={choice}>
      <ConfigProvider theme={antdTheme(choice.theme)} locale={enUS} csp={csp} wave={{ disabled: true }}>
        <App>
          <QueryClientProvider client={queryClient}>{children}</QueryClientProvider>
        </App>
      </ConfigProvider>
    </ThemeChoice>
  );
}
