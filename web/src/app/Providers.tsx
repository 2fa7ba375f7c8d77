import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { ThemeChoice, useThemeChoice } from "./themeChoice";

// A browser that thinks it is offline may still reach a server in the same house: every request is tried, and fails if it must.
const ALWAYS = { networkMode: "always" } as const;
const queryClient = new QueryClient({
  defaultOptions: { queries: { ...ALWAYS, retry: false, staleTime: 5_000 }, mutations: ALWAYS },
});

/** What the desk's and the phone's pages need around them. */
export function Providers({ children }: { children: ReactNode }) {
  return (
    <ThemeChoice value={useThemeChoice()}>
      <QueryClientProvider client={queryClient}>{children}</QueryClientProvider>
    </ThemeChoice>
  );
}
