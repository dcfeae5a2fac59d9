import type { Method } from "../method";
import { methodOf } from "./method-of";
import type { RunRecord } from "./run-record";

/** A name under which a method is begun with choices made: people look for it by that name, and old links bear its id. */
export interface MethodAlias {
  readonly id: string;
  /** The id of its method. */
  readonly of: string;
  readonly title: string;
  readonly purpose: string;
  /** How it differs from its method, in the words of a list. */
  readonly differs: string;
  /** True where it is listed for itself, and not as another way of its method. */
  readonly apart?: true;
  readonly choices: NonNullable<RunRecord["choices"]>;
  /** What is otherwise for the method as a whole. */
  readonly instead: Partial<Pick<Method, "equations" | "substances" | "hazards" | "waste" | "glassware">>;
}

const known = new WeakMap<MethodAlias, Map<Method, Method>>();

/** The method of an alias as it is with the choices made, to be read, planned, printed or copied; the same object each time. */
export function aliased(alias: MethodAlias, method: Method): Method {
  const { id, of, title, purpose, differs, choices, instead } = alias;
  const before = known.get(alias) ?? new Map<Method, Method>();
  known.set(alias, before);
  const there = before.get(method) ?? {
    ...methodOf({ method, choices: [...choices] }),
    ...{ id, title, purpose, ...instead },
    ...(alias.apart ? {} : { variant: { of, differs } }),
  };
  before.set(method, there);
  return there;
}
