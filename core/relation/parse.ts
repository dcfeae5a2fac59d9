import jsep from "jsep";
import { parseFormula } from "../chemistry";
import { failure, type Result, success } from "../result";

export type BinaryOperator = "+" | "-" | "*" | "/" | "^";

/** The tree that all readers of a relation share. */
export type Expression =
  | { readonly type: "number"; readonly value: number; readonly text: string }
  | { readonly type: "symbol"; readonly name: string }
  /** M(formula): a molar mass. */
  | { readonly type: "molar-mass"; readonly formula: string }
  /** ratio(of, per): moles of the first for one mole of the second, by the method's equation. */
  | { readonly type: "ratio"; readonly of: string; readonly per: string }
  | { readonly type: "negate"; readonly argument: Expression }
  | { readonly type: "call"; readonly name: FunctionName; readonly argument: Expression }
  | {
      readonly type: "binary";
      readonly operator: BinaryOperator;
      readonly left: Expression;
      readonly right: Expression;
    };

export interface Relation {
  readonly source: string;
  /** The symbol that the relation defines. */
  readonly symbol: string;
  readonly expression: Expression;
}

export const functionNames = ["sqrt", "ln", "log10", "exp"] as const;
export type FunctionName = (typeof functionNames)[number];

jsep.addBinaryOp("^", 11, true);

interface Reference {
  readonly node: Expression;
}

/**
 * M(...) and ratio(...) hold formulas, which are no arithmetic. Each is cut out and replaced by a placeholder of the
 * same length, so that positions in messages still fit what was typed.
 */
function cutReferences(source: string): Result<{ text: string; references: Map<string, Reference> }> {
  const references = new Map<string, Reference>();
  const opening = /(?<![\p{L}\p{N}_])(M|ratio)\(/gu;
  let text = source;
  for (let match = opening.exec(text); match; match = opening.exec(text)) {
    const inside = match.index + match[0].length;
    let depth = 1;
    let end = inside;
    while (end < text.length && depth > 0) {
      if (text[end] === "(") depth++;
      if (text[end] === ")") depth--;
      end++;
    }
    if (depth > 0) return failure("This bracket is never closed", inside - 1);
    const body = text.slice(inside, end - 1);
    const parts = match[1] === "M" ? [body] : body.split(",");
    if (match[1] === "ratio" && parts.length !== 2) {
      return failure(
        "ratio needs two species: ratio(NaOH, HCl) is moles of NaOH for one mole of HCl",
        match.index,
      );
    }
    for (const part of parts) {
      const formula = parseFormula(part.trim());
      if (!formula.ok) {
        const offset = part.length - part.trimStart().length;
        const at = inside + body.indexOf(part) + offset + (formula.problem.position ?? 0);
        return failure(formula.problem.message, at);
      }
    }
    const [first = "", second = ""] = parts.map((part) => part.trim());
    const placeholder = `$${references.size}`.padEnd(end - match.index, "_");
    references.set(placeholder, {
      node:
        match[1] === "M" ? { type: "molar-mass", formula: first } : { type: "ratio", of: first, per: second },
    });
    text = text.slice(0, match.index) + placeholder + text.slice(end);
    opening.lastIndex = end;
  }
  return success({ text, references });
}

function convert(node: jsep.Expression, references: Map<string, Reference>): Result<Expression> {
  switch (node.type) {
    case "Literal": {
      const { value, raw } = node as jsep.Literal;
      return typeof value === "number"
        ? success({ type: "number", value, text: raw })
        : failure(`${raw} is text; a relation holds numbers and symbols only`);
    }
    case "Identifier": {
      const { name } = node as jsep.Identifier;
      return success(references.get(name)?.node ?? { type: "symbol", name });
    }
    case "UnaryExpression": {
      const { operator, argument } = node as jsep.UnaryExpression;
      const inner = convert(argument, references);
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
      const [a, b] = [convert(left, references), convert(right, references)];
      if (!a.ok) return a;
      if (!b.ok) return b;
      return success({ type: "binary", operator: operator as BinaryOperator, left: a.value, right: b.value });
    }
    case "CallExpression": {
      const { callee, arguments: args } = node as jsep.CallExpression;
      const name = callee.type === "Identifier" ? (callee as jsep.Identifier).name : "";
      const known = functionNames.find((f) => f === name);
      if (!known)
        return failure(`"${name}" is no function that a relation knows (${functionNames.join(", ")})`);
      const [argument] = args;
      if (!argument || args.length !== 1) return failure(`${name} takes one argument`);
      const inner = convert(argument, references);
      return inner.ok ? success({ type: "call", name: known, argument: inner.value }) : inner;
    }
    case "Compound":
      return failure("Two things stand side by side here: is a * or / missing between them?");
    default:
      return failure("A relation holds numbers, symbols, + - * / ^ and brackets only");
  }
}

/** Reads an expression such as `n * ratio(NaOH, HCl) / V`. */
export function parseExpression(source: string): Result<Expression> {
  const cut = cutReferences(source);
  if (!cut.ok) return cut;
  try {
    return convert(jsep(cut.value.text), cut.value.references);
  } catch (error) {
    const { description, index } = error as { description?: string; index?: number };
    return failure(description ?? "This cannot be read as a formula", index);
  }
}

/** Reads a relation `symbol = expression`. */
export function parseRelation(source: string): Result<Relation> {
  const match = /^\s*([\p{L}][\p{L}\p{N}_]*)\s*=/u.exec(source);
  const symbol = match?.[1];
  if (!match || !symbol) return failure('A relation begins with the symbol it defines, as in "c = n / V"', 0);
  const expression = parseExpression(source.slice(match[0].length));
  if (!expression.ok) {
    const { message, position } = expression.problem;
    return failure(message, position === undefined ? undefined : position + match[0].length);
  }
  return success({ source, symbol, expression: expression.value });
}

/** The symbols that an expression reads, in order of appearance. */
export function symbolsIn(expression: Expression): string[] {
  switch (expression.type) {
    case "symbol":
      return [expression.name];
    case "binary":
      return [...new Set([...symbolsIn(expression.left), ...symbolsIn(expression.right)])];
    case "negate":
    case "call":
      return symbolsIn(expression.argument);
    case "number":
    case "molar-mass":
    case "ratio":
      return [];
  }
}
