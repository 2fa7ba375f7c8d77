import { QueryCache, QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { App, ConfigProvider } from "antd";
import enUS from "antd/locale/en_US";
import { type ReactNode, useLayoutEffect, useMemo } from "react";
import { $api, problemOf } from "../shared/api/client";
import { antdTheme, applyPalette } from "./theme";
import { ThemeChoice, useThemeChoice } from "./themeChoice";

const sessionKey = $api.queryOptions("get", "/api/v1/session").queryKey;

const queryClient: QueryClient = new QueryClient({
  defaultOptions: { queries: { retry: false, staleTime: 5_000 } },
  queryCache: new QueryCache({
    // Someone signed out elsewhere: the gate asks again and shows the sign-in.
    onError: (error) => {
      if (problemOf(error)?.status === 401) queryClient.invalidateQueries({ queryKey: sessionKey });
    },
  }),
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
