import { readdirSync, readFileSync, statSync } from "node:fs";
import { join, relative } from "node:path";
import ts from "typescript";
import { describe, expect, it } from "vitest";

const SOURCE = join(import.meta.dirname, "..");

function filesBelow(folder: string): string[] {
  return readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? filesBelow(path) : [path];
  });
}

/** Text between tags, attributes that a person reads, and labels of choices. */
function textsOf(path: string): string[] {
  const file = ts.createSourceFile(
    path,
    readFileSync(path, "utf8"),
    ts.ScriptTarget.Latest,
    true,
    ts.ScriptKind.TSX,
  );
  const READ = new Set(["label", "title", "placeholder", "aria-label", "alt", "says", "heading"]);
  const found: string[] = [];
  const visit = (node: ts.Node) => {
    if (ts.isJsxText(node) && /[A-Za-z]{2,}/.test(node.text.replace(/&\w+;/g, "")))
      found.push(node.text.trim());
    if (
      ts.isJsxAttribute(node) &&
      READ.has(node.name.getText()) &&
      node.initializer &&
      ts.isStringLiteral(node.initializer) &&
      /[A-Za-z]{2,}/.test(node.initializer.text)
    )
      found.push(node.initializer.text);
    if (
      ts.isPropertyAssignment(node) &&
      node.name.getText() === "label" &&
      ts.isStringLiteral(node.initializer) &&
      /[a-z]{2,}/.test(node.initializer.text)
    )
      found.push(node.initializer.text);
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}

describe("words of the screens", () => {
  const screens = filesBelow(SOURCE).filter(
    (path) => path.endsWith(".tsx") && !path.includes(".test.") && !path.endsWith("testing.tsx"),
  );

  it.each(screens.map((path) => [relative(SOURCE, path), path]))(
    "%s takes every text from words/",
    (_, path) => {
      expect(textsOf(path)).toEqual([]);
    },
  );

  it("speaks the trade's words, not the house's", () => {
    const house =
      /\b(Yard|joinings?|sleeves?|recipe|thin leads|made leg|works['’] rules|worked out|put right|aluminium|Sense checks|leg that is made)\b/i;
    const words = filesBelow(join(SOURCE, "words")).filter((path) => !path.includes(".test."));
    const wrong = words.flatMap((path) =>
      [...readFileSync(path, "utf8").matchAll(/"([^"\n]*)"|`([^`]*)`/g)]
        .map((match) => match[1] ?? match[2] ?? "")
        .filter((text) => house.test(text)),
    );
    expect(wrong).toEqual([]);
  });
});
