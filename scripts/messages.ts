import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import ts from "typescript";
import { aliases, offered } from "~/catalog/methods";
import { textsOf } from "~/words/method-texts";

const rooms = ["app", "catalog", "core", "devices", "formats", "protocol", "server", "words"];

function filesIn(folder: string): string[] {
  return readdirSync(folder, { recursive: true, encoding: "utf8" })
    .filter((file) => /\.tsx?$/.test(file) && !/\.test\.tsx?$/.test(file))
    .map((file) => path.join(folder, file));
}

/** The key of a tagged template: its text, with {0}, {1}… where values stand. */
function keyOf(template: ts.TemplateLiteral): string {
  if (ts.isNoSubstitutionTemplateLiteral(template)) return template.text;
  return template.templateSpans.reduce(
    (all, { literal }, i) => `${all}{${i}}${literal.text}`,
    template.head.text,
  );
}

/** Messages that a file writes with msg`…` or say`…`. */
function messagesIn(file: string): string[] {
  const source = ts.createSourceFile(file, readFileSync(file, "utf8"), ts.ScriptTarget.Latest, true);
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isTaggedTemplateExpression(node) && /^(msg|say)$/.test(node.tag.getText(source)))
      found.push(keyOf(node.template));
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

/** Says something: more than values beside each other. */
const hasWords = (key: string): boolean => /\p{L}/u.test(key.replace(/\{\d+\}/g, ""));

/** Every message of the program and every text of the shipped methods, each with its American English, in alphabetical order. */
export function messagesOfProgram(): Record<string, string> {
  const all = [
    ...rooms.flatMap(filesIn).flatMap(messagesIn),
    ...offered.flatMap(textsOf),
    ...aliases.map(({ differs }) => differs),
  ];
  const keys = [...new Set(all.filter(hasWords))].sort();
  return Object.fromEntries(keys.map((key) => [key, key]));
}
