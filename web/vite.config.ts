import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  build: {
    outDir: "../cobblewort/api/page",
    emptyOutDir: true,
    assetsInlineLimit: 0,
    // The framework in a file of its own, which stays the same when only our pages change.
    rolldownOptions: {
      output: {
        advancedChunks: {
          groups: [
            {
              name: "framework",
              test: /node_modules.(react|react-dom|scheduler|react-router|@tanstack|react-bootstrap|@restart|openapi-fetch)/,
            },
          ],
        },
      },
    },
  },
  server: { proxy: { "/api": "http://127.0.0.1:8000" } },
  css: { preprocessorOptions: { scss: { quietDeps: true, silenceDeprecations: ["import"] } } },
  // One environment for all files: making it costs more than all the tests together.
  test: { environment: "jsdom", isolate: false, include: ["src/**/*.test.{ts,tsx}"] },
});
