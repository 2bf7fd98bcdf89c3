/** Prints every word of the page that a person can read, by folder and file, for reading it through.
 *
 * What is read from the source: text between tags, and strings that hold words: labels, titles,
 * sentences. Slots of a template are shown as {…}. Ids, class names, paths and imports are not. */
import { readdirSync, readFileSync } from "node:fs";
import { join, relative } from "node:path";

import ts from "typescript";

const ROOT = new URL("../src", import.meta.url).pathname;
const SPOKEN = new Set(["aria-label", "title", "placeholder", "label", "alt", "help", "hint"]);
const UNSPOKEN = new Set(["className", "to", "id", "htmlFor", "key", "d", "transform", "href"]);

function files(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return entry.name === "testing" ? [] : files(path);
    const isSource = /\.tsx?$/.test(entry.name) && !/\.test\.|schema\.ts$|labels\.ts$/.test(path);
    return isSource ? [path] : [];
  });
}

function spoken(text, node) {
  if (!/\p{L}{2}/u.test(text)) return false;
  for (let at = node.parent; at; at = at.parent) {
    if (ts.isJsxAttribute(at)) {
      const name = at.name.getText();
      if (UNSPOKEN.has(name)) return false;
      if (SPOKEN.has(name)) return true;
      break;
    }
    if (ts.isImportDeclaration(at) || ts.isLiteralTypeNode(at) || ts.isExportDeclaration(at))
      return false;
    if (ts.isFunctionLike(at)) break;
  }
  if (ts.isPropertyAssignment(node.parent) && node.parent.name === node) return false;
  return (
    /^\p{Lu}|\p{L} \p{L}|^ |\{…\}.* |,\s/u.test(text) && !/[/#.]\w+[-/]|^api|; |=|\bM \{/.test(text)
  );
}

function templateText(node) {
  return node.head.text + node.templateSpans.map((span) => `{…}${span.literal.text}`).join("");
}

export function wordsOf(path) {
  const text = readFileSync(path, "utf8");
  const source = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true, ts.ScriptKind.TSX);
  const found = [];
  const visit = (node) => {
    const words = ts.isJsxText(node)
      ? node.text.replace(/\s+/g, " ")
      : ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)
        ? node.text
        : ts.isTemplateExpression(node)
          ? templateText(node)
          : "";
    const isText = ts.isJsxText(node) ? /\p{L}{2}/u.test(words) : spoken(words, node);
    if (isText) {
      const { line } = source.getLineAndCharacterOfPosition(node.getStart(source));
      found.push({ line: line + 1, words: words.trim() });
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

for (const path of files(ROOT)) {
  const found = wordsOf(path);
  if (found.length === 0) continue;
  console.log(`\n## ${relative(ROOT, path)}\n`);
  for (const { line, words } of found) console.log(`${line}: ${words}`);
}
