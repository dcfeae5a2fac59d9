import jsep from "jsep";
import { parseFormula } from "../chemistry";
import { isUnit } from "../quantity";
import { failure, type Result, success } from "../result";
import { type BinaryOperator, type Expression, functions, type LeafExpression } from "./expression";
import { msg, type Phrase } from "../text";

export interface Relation {
  readonly source: string;
  /** The symbol that the relation defines. */
  readonly symbol: string;
  readonly expression: Expression;
}

type Placed<T> = T & { at?: number };

jsep.addBinaryOp("^", 11, true);
// Leaves keep where they stand, so that messages can point at them.
jsep.hooks.add("after-token", function (env) {
  const node = env.node;
  if (node?.type === "Identifier") node.at = this.index - (node as jsep.Identifier).name.length;
  if (node?.type === "Literal") node.at = this.index - (node as jsep.Literal).raw.length;
});

interface Cut {
  /** What was typed, with each part that is no arithmetic replaced by a placeholder of the same length. */
  readonly text: string;
  readonly parts: ReadonlyMap<string, LeafExpression>;
}

const species: Record<string, readonly string[]> = {
  M: ["formula"],
  ratio: ["of", "per"],
  equivalents: ["of"],
};

/** The formulas between the brackets of M(...), ratio(...) or equivalents(...), read one by one. */
function readFormulas(name: string, body: string, inside: number): Result<string[]> {
  const parts = species[name]?.length === 1 ? [body] : body.split(",");
  if (parts.length !== species[name]?.length) {
    return failure(
      msg`ratio needs two species: ratio(NaOH, HCl) is moles of NaOH for one mole of HCl`,
      inside - name.length - 1,
    );
  }
  let offset = 0;
  for (const part of parts) {
    const formula = parseFormula(part.trim());
    if (!formula.ok) {
      const at = inside + offset + part.length - part.trimStart().length;
      return failure(formula.problem.message, at + (formula.problem.position ?? 0), formula.problem.hint);
    }
    offset += part.length + 1;
  }
  return success(parts.map((part) => part.trim()));
}

/**
 * M(...), ratio(...) and equivalents(...) hold formulas, `0.789 [g/mL]` a unit: no arithmetic. Each is cut out and
 * replaced by a placeholder of the same length, so that positions in messages still fit what was typed.
 */
function cutParts(source: string): Result<Cut> {
  const parts = new Map<string, LeafExpression>();
  let text = source;
  const put = (from: number, to: number, leaf: LeafExpression) => {
    const placeholder = `$${parts.size.toString(36)}`.padEnd(to - from, "_");
    parts.set(placeholder, { ...leaf, at: from });
    text = text.slice(0, from) + placeholder + text.slice(to);
  };

  const opening = /(?<![\p{L}\p{N}_])(M|ratio|equivalents)\(/gu;
  for (let match = opening.exec(text); match; match = opening.exec(text)) {
    const name = match[1] ?? "";
    const inside = match.index + match[0].length;
    let depth = 1;
    let end = inside;
    while (end < text.length && depth > 0) {
      if (text[end] === "(") depth++;
      if (text[end] === ")") depth--;
      end++;
    }
    if (depth > 0) return failure(msg`This bracket is never closed`, inside - 1);
    const formulas = readFormulas(name, text.slice(inside, end - 1), inside);
    if (!formulas.ok) return formulas;
    const [first = "", second = ""] = formulas.value;
    put(
      match.index,
      end,
      name === "M"
        ? { type: "molar-mass", formula: first }
        : name === "ratio"
          ? { type: "ratio", of: first, per: second }
          : { type: "equivalents", of: first },
    );
    opening.lastIndex = end;
  }

  const withUnit = /(?<![\p{L}\p{N}_.])(\d+\.?\d*(?:[eE][+-]?\d+)?|\.\d+)\s*\[([^\]]*)\]/gu;
  for (let match = withUnit.exec(text); match; match = withUnit.exec(text)) {
    const [all, digits = "", unit = ""] = match;
    if (!isUnit(unit.trim())) {
      const at = match.index + all.indexOf("[") + 1;
      return failure(
        msg`"${unit.trim()}" is not a known unit`,
        at,
        msg`Write it as in ${"[mL]"}, ${"[g/mol]"} or ${"[mol/L]"}`,
      );
    }
    put(match.index, match.index + all.length, {
      type: "number",
      value: Number(digits),
      text: digits,
      unit: unit.trim(),
    });
    withUnit.lastIndex = match.index + all.length;
  }
  const bracket = text.indexOf("[");
  if (bracket >= 0)
    return failure(msg`A unit in square brackets stands behind a number, as in ${"0.1 [mol/L]"}`, bracket);
  return success({ text, parts });
}

const knownFunctions = Object.keys(functions).join(", ");
const meant: Record<string, Phrase> = {
  log: msg`Write log10(x) for the common logarithm, ln(x) for the natural one`,
  lg: msg`Write log10(x)`,
  root: msg`Write sqrt(x)`,
  average: msg`Write mean(a, b)`,
  avg: msg`Write mean(a, b)`,
  pow: msg`Write x ^ 2`,
};

function convert(node: Placed<jsep.Expression>, parts: Cut["parts"]): Result<Expression> {
  const placed = node.at === undefined ? {} : { at: node.at };
  switch (node.type) {
    case "Literal": {
      const { value, raw } = node as jsep.Literal;
      return typeof value === "number" && Number.isFinite(value)
        ? success({ type: "number", value, text: raw, ...placed })
        : failure(`${raw} is text; a relation holds numbers and symbols only`, node.at);
    }
    case "Identifier": {
      const { name } = node as jsep.Identifier;
      return success(parts.get(name) ?? { type: "symbol", name, ...placed });
    }
    case "UnaryExpression": {
      const { operator, argument } = node as jsep.UnaryExpression;
      const inner = convert(argument, parts);
      if (!inner.ok) return inner;
      if (operator === "-") return success({ type: "negate", argument: inner.value });
      return operator === "+" ? inner : failure(`"${operator}" has no meaning in a relation`);
    }
    case "BinaryExpression": {
      const { operator, left, right } = node as jsep.BinaryExpression;
      if (!["+", "-", "*", "/", "^"].includes(operator))
        return failure(`"${operator}" has no meaning in a relation`);
      if (operator === "^" && left.type === "UnaryExpression") {
        return failure("A minus sign before a power can be read two ways: put brackets, as in 0 - (x ^ 2)");
      }
      const [a, b] = [convert(left, parts), convert(right, parts)];
      if (!a.ok) return a;
      if (!b.ok) return b;
      return success({ type: "binary", operator: operator as BinaryOperator, left: a.value, right: b.value });
    }
    case "CallExpression": {
      const { callee, arguments: args } = node as jsep.CallExpression;
      const name = callee.type === "Identifier" ? (callee as jsep.Identifier).name : "";
      const known = (Object.keys(functions) as (keyof typeof functions)[]).find((f) => f === name);
      if (!known) {
        return failure(
          `"${name}" is no function that a relation knows (${knownFunctions})`,
          undefined,
          meant[name.toLowerCase()],
        );
      }
      if (functions[known] === "one" && args.length !== 1) return failure(`${name} takes one argument`);
      if (args.length === 0) return failure(`${name} takes at least one argument`);
      const inner: Expression[] = [];
      for (const argument of args) {
        const converted = convert(argument, parts);
        if (!converted.ok) return converted;
        inner.push(converted.value);
      }
      return success({ type: "call", name: known, arguments: inner });
    }
    case "Compound": {
      const second: Placed<jsep.Expression> | undefined = (node as jsep.Compound).body[1];
      return failure(
        "Two things stand side by side here: is a * or / missing between them?",
        second?.at,
        "Write a * b for a product",
      );
    }
    default:
      return failure(msg`A relation holds numbers, symbols, + - * / ^ and brackets only`);
  }
}

/** Longer than this nobody reads a relation. */
const longestRelation = 2000;
/** Brackets within brackets. */
const deepest = 100;

function depthOf(text: string): number {
  let [depth, most] = [0, 0];
  for (const c of text) {
    if (c === "(") most = Math.max(most, ++depth);
    if (c === ")") depth--;
  }
  return most;
}

/** Reads an expression such as `n * ratio(NaOH, HCl) / V`. Problems carry the position and, where one is known, a hint. */
export function parseExpression(source: string): Result<Expression> {
  if (source.trim() === "") return failure(msg`A formula is missing here`, 0);
  if (source.length > longestRelation)
    return failure(
      msg`A relation has at most ${longestRelation} characters: compute it in two lines`,
      longestRelation,
    );
  if (depthOf(source) > deepest) return failure(msg`Brackets are nested at most ${deepest} deep`, 0);
  const quote = /["'`\\]/.exec(source);
  if (quote) return failure(msg`A relation holds numbers and symbols only: no quotes`, quote.index);
  const cut = cutParts(source);
  if (!cut.ok) return cut;
  try {
    return convert(jsep(cut.value.text), cut.value.parts);
  } catch (error) {
    const { description = "", index = 0 } = error as { description?: string; index?: number };
    return failure(inOurWords(description), Math.min(index, source.length));
  }
}

/** What the parser underneath says, as an instructor would. */
function inOurWords(description: string): Phrase {
  if (/^(Unclosed \(|Expected \))/.test(description)) return msg`A bracket is never closed`;
  if (/^(Expected expression|Unexpected $|Unexpected period)/.test(description))
    return msg`Something is missing here`;
  const odd = /^Unexpected "(.)"/.exec(description)?.[1];
  return odd ? msg`"${odd}" is not allowed here` : msg`This cannot be read as a formula`;
}

/** Reads a relation `symbol = expression`. */
export function parseRelation(source: string): Result<Relation> {
  const match = /^\s*([\p{L}][\p{L}\p{N}_]*)\s*=/u.exec(source);
  const symbol = match?.[1];
  if (!match || !symbol)
    return failure(msg`A relation begins with the symbol it defines, as in "c = n / V"`, 0);
  const start = match[0].length;
  const expression = parseExpression(source.slice(start));
  if (!expression.ok) {
    const { message, position, hint } = expression.problem;
    return failure(message, position === undefined ? undefined : position + start, hint);
  }
  return success({ source, symbol, expression: shifted(expression.value, start) });
}

/** The same tree with its positions moved on, since it was read without what stands before the equals sign. */
function shifted(expression: Expression, by: number): Expression {
  switch (expression.type) {
    case "negate":
      return { ...expression, argument: shifted(expression.argument, by) };
    case "call":
      return { ...expression, arguments: expression.arguments.map((a) => shifted(a, by)) };
    case "binary":
      return { ...expression, left: shifted(expression.left, by), right: shifted(expression.right, by) };
    default:
      return expression.at === undefined ? expression : { ...expression, at: expression.at + by };
  }
}
