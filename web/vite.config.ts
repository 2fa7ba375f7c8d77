import react from "@vitejs/plugin-react";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [
    react(),
    // Only the phone's pages are kept for use without a connection; a coach's desk always comes fresh.
    VitePWA({
      // Offered on the page, and never taken in the middle of a session.
      registerType: "prompt",
      injectRegister: null,
      manifest: {
        name: "Orthomer",
        short_name: "Orthomer",
        description: "This week's training, logged with one thumb",
        start_url: "/my",
        scope: "/",
        display: "standalone",
        background_color: "#f5f0e6",
        theme_color: "#f5f0e6",
        icons: [{ src: "/icon.svg", sizes: "any", type: "image/svg+xml", purpose: "any" }],
      },
      workbox: {
        // The first one takes the page that installed it: what is opened now works without a line already.
        clientsClaim: true,
        inlineWorkboxRuntime: true,
        sourcemap: false,
        globPatterns: ["**/*.{js,css,html,woff2,svg}"],
        // How an exercise is done stays to be seen without a line; it is the same for everybody.
        runtimeCaching: [
          {
            urlPattern: ({ url }) => url.pathname.startsWith("/api/v1/figures/"),
            handler: "StaleWhileRevalidate",
            options: { cacheName: "figures", expiration: { maxEntries: 300 } },
          },
        ],
        navigateFallback: "/index.html",
        navigateFallbackAllowlist: [/^\/my/, /^\/train\//],
      },
    }),
  ],
  // The server puts a fresh nonce in this place with every page it sends.
  html: { cspNonce: "__NONCE__" },
  build: { target: "es2022", chunkSizeWarningLimit: 900 },
  server: { proxy: { "/api": `http://127.0.0.1:${process.env.PORT ?? 8080}` } },
  test: {
    environment: "happy-dom",
    setupFiles: "src/test/setup.ts",
    testTimeout: 60_000,
    // Loading the components anew for every file took two thirds of the time; the tests pass in any order of files.
    isolate: false,
    maxWorkers: 2,
  },
});
