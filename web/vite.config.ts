import { createHash } from "node:crypto";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import type { Plugin } from "vite";
import { defineConfig } from "vitest/config";

const BASE = "/static/";

/** Give the service worker the list of everything the page is made of. */
function precached(): Plugin {
  return {
    name: "even-coil-precached",
    apply: "build",
    generateBundle: {
      order: "post",
      handler(_, bundle) {
        const files = Object.values(bundle);
        const worker = files.find((one) => one.fileName === "sw.js");
        if (worker?.type !== "chunk") throw new Error("there is no service worker to fill");
        const page = files.find((one) => one.fileName === "index.html");
        if (page?.type !== "asset") throw new Error("there is no page to keep");
        const revision = createHash("sha256").update(page.source).digest("hex").slice(0, 16);
        const urls = files
          .map((one) => one.fileName)
          .filter((name) => name.startsWith("assets/") && !name.endsWith(".map"))
          // the file's own name holds its digest
          .map((name) => ({ url: `${BASE}${name}`, revision: null }));
        const list = JSON.stringify([{ url: "/", revision }, ...urls]);
        worker.code = worker.code.replace("self.__WB_MANIFEST", () => list);
      },
    },
  };
}

export default defineConfig({
  base: BASE,
  plugins: [react(), tailwindcss(), precached()],
  build: {
    assetsInlineLimit: 0,
    sourcemap: false,
    rollupOptions: {
      input: { index: "index.html", sw: "src/sw.ts" },
      output: {
        entryFileNames: (chunk) => (chunk.name === "sw" ? "sw.js" : "assets/[name]-[hash].js"),
      },
    },
  },
  server: { proxy: { "/api": "http://127.0.0.1:8765" } },
  test: {
    include: ["src/**/*.test.{ts,tsx}"],
    // a process for each file takes three times as long as a thread
    pool: "threads",
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
