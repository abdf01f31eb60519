import { readdirSync, readFileSync } from "node:fs";
import { extname, join } from "node:path";
import ts from "typescript";
import { parse } from "yaml";

/** A text that people see, with the place where it is written. */
export interface Shown {
  at: string;
  text: string;
}

const filesUnder = (folder: string): string[] =>
  readdirSync(folder, { recursive: true, encoding: "utf8" }).map((file) => join(folder, file));

/** Attributes of elements that steer and are not shown. */
const STEERS =
  /^(className|id|key|href|type|role|rel|method|path|data-.*|htmlFor|src|accept|d|viewBox|width|height|style)$/;

const isHidden = (node: ts.Node): boolean =>
  ts.isImportDeclaration(node) ||
  ts.isExportDeclaration(node) ||
  ts.isLiteralTypeNode(node) ||
  ts.isTaggedTemplateExpression(node) ||
  (ts.isJsxAttribute(node) && STEERS.test(node.name.getText()));

/** A value of a table of words, such as STATE_WORDS: shown though it may be one word. */
const isOfWords = ({ parent }: ts.Node): boolean =>
  ts.isPropertyAssignment(parent) &&
  ts.isObjectLiteralExpression(parent.parent) &&
  ts.isVariableDeclaration(parent.parent.parent) &&
  /WORDS|NAMES|TITLES|SHOWN|TEXTS?$|STATES/.test(parent.parent.parent.name.getText());

/** A key of the code, a class or a path has no space in it, or begins small and is compared with something. */
const isProse = (node: ts.Node, text: string): boolean =>
  !(ts.isBinaryExpression(node.parent) && /^[=!]==?$/.test(node.parent.operatorToken.getText())) &&
  !ts.isCaseClause(node.parent) &&
  !ts.isElementAccessExpression(node.parent) &&
  !(ts.isPropertyAssignment(node.parent) && node.parent.name === node) &&
  (isOfWords(node) ||
    /^[A-Z][a-z]/.test(text) ||
    /[a-z,.;:] +[\w{]/i.test(text) ||
    ts.isJsxAttribute(node.parent));

/** Texts of a file of the code: what stands between tags, strings and the fixed parts of templates. */
function inCode(file: string): Shown[] {
  const source = ts.createSourceFile(file, readFileSync(file, "utf8"), ts.ScriptTarget.Latest, true);
  const shown: Shown[] = [];
  const put = (node: ts.Node, text: string): void => {
    const { line } = source.getLineAndCharacterOfPosition(node.getStart());
    if (/[a-z]/i.test(text)) shown.push({ at: `${file}:${line + 1}`, text: text.replaceAll(/\s+/g, " ") });
  };
  const visit = (node: ts.Node): void => {
    if (isHidden(node)) return;
    if (ts.isJsxText(node)) put(node, node.text);
    else if (ts.isTemplateExpression(node)) {
      const text = [node.head.text, ...node.templateSpans.map((s) => s.literal.text)].join("{…}");
      if (isProse(node, text)) put(node, text);
    } else if (ts.isStringLiteralLike(node) && isProse(node, node.text)) put(node, node.text);
    ts.forEachChild(node, visit);
  };
  visit(source);
  return shown;
}

/** Every text of a profile, but not what it compares with or writes into a file. */
function inProfile(file: string): Shown[] {
  const shown: Shown[] = [];
  const visit = (value: unknown, at: string): void => {
    if (typeof value === "string" && /\s/.test(value)) shown.push({ at: `${file} ${at}`, text: value });
    else if (typeof value === "object" && value !== null)
      for (const [key, part] of Object.entries(value)) visit(part, `${at}.${key}`);
  };
  visit(parse(readFileSync(file, "utf8")), "");
  return shown;
}

const inLines = (file: string): Shown[] =>
  readFileSync(file, "utf8")
    .split("\n")
    .map((text, i) => ({ at: `${file}:${i + 1}`, text: text.replaceAll(/`[^`]*`/g, "`…`") }));

/** All texts that people see: the messages of the core, the interface, the profiles and the page of the rules. */
export const shownTexts = (): Shown[] => [
  ...["src/core", "src/ui", "src/app", "src/server"]
    .flatMap(filesUnder)
    .filter((f) => /\.tsx?$/.test(f) && !/\.test\.tsx?$/.test(f))
    .flatMap(inCode),
  ...filesUnder("profiles")
    .filter((f) => extname(f) === ".yaml")
    .flatMap(inProfile),
  ...inLines("docs/checks.md"),
];
