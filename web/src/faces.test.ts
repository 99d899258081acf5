import { readFileSync } from "node:fs";
import { expect, it } from "vitest";

it("has every face that the styles name loaded before the first line is set", () => {
  const named = readFileSync("src/index.css", "utf8").matchAll(
    /@fontsource\/([\w-]+)\/latin-(\d+)\.css/g,
  );
  const before = readFileSync("index.html", "utf8").matchAll(
    /rel="preload"[^>]*files\/([\w-]+\.woff2)"/g,
  );

  const faces = [...named].map(([, family, weight]) => `${family}-latin-${weight}-normal.woff2`);
  expect(faces.length).toBeGreaterThan(0);
  expect([...before].map(([, file]) => file).sort()).toEqual(faces.sort());
});
