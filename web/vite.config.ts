import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  base: "/static/",
  plugins: [react(), tailwindcss()],
  build: { assetsInlineLimit: 0, sourcemap: false },
  server: { proxy: { "/api": "http://127.0.0.1:8765" } },
  test: {
    include: ["src/**/*.test.{ts,tsx}"],
    coverage: {
      provider: "v8",
      reporter: ["text-summary"],
      include: ["src/**/*.{ts,tsx}"],
      // what only draws is reached by the browser tests; what decides is tested here
      thresholds: {
        lines: 29,
        "src/state/use*.ts": { lines: 80 },
        "src/**/use{Convert,Rehearsal}.ts": { lines: 80 },
      },
      exclude: ["src/**/*.test.{ts,tsx}", "src/api/schema.gen.ts", "src/state/testing.tsx"],
    },
  },
});
