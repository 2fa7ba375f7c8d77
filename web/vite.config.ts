import react from "@vitejs/plugin-react";
import subsetFont from "subset-font";
import type { Plugin } from "vite";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";
import { paletteCss } from "./src/app/palette.ts";

/** The palettes as a style sheet: colours are there before the first script has run. */
const palette: Plugin = {
  name: "palette",
  resolveId: (id) => (id === "virtual:palette.css" ? "\0palette.css" : undefined),
  load: (id) => (id === "\0palette.css" ? paletteCss() : undefined),
};

/** While building on it: the phone's addresses get the phone's page, as the binary serves them. */
const phoneAddresses: Plugin = {
  name: "phone-addresses",
  configureServer(server) {
    server.middlewares.use((request, _, next) => {
      if (/^\/(my|train\/[^/]+)\/?(\?.*)?$/.test(request.url ?? "")) request.url = "/phone.html";
      next();
    });
  },
};

/** From space to the end of Latin-1, and the marks that our texts and numbers use; other letters come in a file of their own. */
const LETTERS = `${Array.from({ length: 0xff - 0x1f }, (_, place) => String.fromCodePoint(0x20 + place)).join("")}ıŒœ–—‘’“”•…‹›€™↑↓−⁄`;

/** The phone's font without the weights and letters that its pages do not use: two thirds of its bytes. */
const leanFont: Plugin = {
  name: "lean-font",
  async generateBundle(_, bundle) {
    for (const asset of Object.values(bundle)) {
      if (asset.type !== "asset" || !/next-latin-wght-normal/.test(asset.fileName)) continue;
      const variationAxes = { wght: { min: 400, max: 700 } };
      asset.source = await subsetFont(Buffer.from(asset.source), LETTERS, {
        targetFormat: "woff2",
        variationAxes,
      });
    }
  },
};

/** The text's letters are asked for with the page: what comes after the first words moves all of them on a slow line. */
const lettersFirst: Plugin = {
  name: "letters-first",
  transformIndexHtml: {
    order: "post",
    handler: (_, { bundle }) =>
      Object.keys(bundle ?? {})
        .filter((file) => /next-latin-wght-normal/.test(file))
        .map((file) => ({
          tag: "link",
          attrs: { rel: "preload", as: "font", type: "font/woff2", crossorigin: "", href: `/${file}` },
          injectTo: "head-prepend" as const,
        })),
  },
};

/** What the phone keeps for use without a line: its own pages, and none of the desk's. */
const worker = VitePWA({
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
    globPatterns: ["phone.html", "theme.js", "icon.svg", "assets/phone/*"],
    // Signing in needs a line.
    globIgnores: ["assets/phone/SignInDoor-*"],
    // How an exercise is done stays to be seen without a line; it is the same for everybody.
    runtimeCaching: [
      {
        urlPattern: ({ url }) => url.pathname.startsWith("/api/v1/figures/"),
        handler: "StaleWhileRevalidate",
        options: { cacheName: "figures", expiration: { maxEntries: 300 } },
      },
    ],
    navigateFallback: "/phone.html",
    navigateFallbackAllowlist: [/^\/my/, /^\/train\//],
  },
});

// Two pages, each built for itself: the desk's, and the phone's (`--mode phone`), into which nothing of the desk's finds its way.
export default defineConfig(({ mode, command }) => {
  const phone = mode === "phone";
  return {
    plugins: [
      react(),
      palette,
      phoneAddresses,
      ...(phone ? [leanFont] : []),
      lettersFirst,
      ...(phone || command === "serve" ? [worker] : []),
    ],
    // The server puts a fresh nonce in this place with every page it sends.
    html: { cspNonce: "__NONCE__" },
    build: {
      target: "es2022",
      chunkSizeWarningLimit: 900,
      emptyOutDir: !phone,
      assetsDir: phone ? "assets/phone" : "assets",
      rollupOptions: { input: phone ? "phone.html" : "index.html" },
    },
    server: { proxy: { "/api": `http://127.0.0.1:${process.env.PORT ?? 8080}` } },
    test: {
      environment: "happy-dom",
      setupFiles: "src/test/setup.ts",
      testTimeout: 60_000,
      // Loading the components anew for every file took two thirds of the time; the tests pass in any order of files.
      isolate: false,
      maxWorkers: 2,
    },
  };
});
