import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  // The server puts a fresh nonce in this place with every page it sends.
  html: { cspNonce: "__NONCE__" },
  build: { target: "es2022", chunkSizeWarningLimit: 900 },
  server: { proxy: { "/api": "http://127.0.0.1:8080" } },
  test: { environment: "happy-dom", testTimeout: 60_000 },
});
