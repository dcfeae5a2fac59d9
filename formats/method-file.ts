import { compileMethod, type Method, MethodSchema } from "~/core/run";
import { type PathProblem, pathChecker } from "./validate";

const shapeProblems = pathChecker(MethodSchema);

/** A method in the text of a file, or what is wrong with it by path: whether it is JSON at all, its shape, then its sense. */
export function readMethodFile(text: string): { method: Method } | { problems: readonly PathProblem[] } {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    const words = error instanceof Error ? error.message : "";
    return { problems: [{ path: "the whole", message: `is no JSON: ${words}` }] };
  }
  const problems = shapeProblems(value);
  if (problems.length > 0) return { problems: problems.slice(0, 12) };
  const method = value as Method;
  const compiled = compileMethod(method);
  if (!compiled.ok) {
    const { message, hint } = compiled.problem;
    return {
      problems: [{ path: stagePath(method, message), message: hint ? `${message}. ${hint}` : message }],
    };
  }
  return { method };
}

/** Where a method does not hold together: the stage that the message names, else the equations. */
function stagePath(method: Method, message: string): string {
  const at = method.stages.findIndex((stage) => message.startsWith(`Stage "${stage.title}"`));
  return at < 0 ? "equations" : `stages.${at}`;
}
