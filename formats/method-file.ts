import { type Method } from "~/core/method";
import { compileMethod } from "~/core/stages";
import { valid } from "./compiled/method";
import { conclusionProblem, type MethodFile, methodOfFile } from "./concluded";
import { methodProblemWords } from "~/words/method-problems";
import { withQuantities } from "./earlier-methods";
import { type PathProblem, pathChecker } from "./validate";

const shapeProblems = pathChecker(valid);

/** The longest of the library has a fifteenth of that. */
const longestFile = 500_000;

/** A method in the text of a file, or what is wrong with it by path: whether it is JSON at all, its shape, then its sense. */
export function readMethodFile(text: string): { method: Method } | { problems: readonly PathProblem[] } {
  if (text.length > longestFile)
    return {
      problems: [
        { path: "the whole", message: `is longer than ${longestFile.toLocaleString("en")} characters` },
      ],
    };
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    const words = error instanceof Error ? error.message : "";
    return { problems: [{ path: "the whole", message: `is no JSON: ${words}` }] };
  }
  const problems = shapeProblems(value);
  if (problems.length > 0) return { problems: problems.slice(0, 12) };
  const file = value as MethodFile;
  const wrong = conclusionProblem(file);
  if (wrong) return { problems: [{ path: `stages.${wrong.at}`, message: wrong.message }] };
  const method = methodOfFile(file);
  const reserved = reservedIn(method);
  if (reserved) return { problems: [reserved] };
  const compiled = compileMethod(method);
  if (!compiled.ok) {
    const { problem } = compiled;
    return { problems: [{ path: problem.path.join("."), message: methodProblemWords(problem) }] };
  }
  return { method: withQuantities(method) };
}

/** Addresses under which something else stands, and names that every object of the language has. */
const isReserved = (name: string): boolean => name === "new" || name === "import" || name in Object.prototype;

function reservedIn({ id, stages }: Method): PathProblem | null {
  const message = "is a word that the program needs itself: choose another";
  if (isReserved(id)) return { path: "id", message };
  const at = stages.findIndex(({ key }) => isReserved(key));
  return at < 0 ? null : { path: `stages.${at}.key`, message };
}
