import { isPlain, said } from "./house";

/** Properties that people read or hear, beside what stands between the tags. */
const readByPeople = ["aria-label", "title", "label", "helperText", "placeholder", "alt", "aria-valuetext"];

const inWords = (child: unknown): unknown =>
  typeof child === "string" ? said(child) : Array.isArray(child) ? child.map(inWords) : child;

/**
 * What an element shows, in the words of the house. Every element of the interface is made by the functions beside this
 * file, so that no screen has to think of it; values of fields, keys and addresses are left alone.
 */
export function speakProps<P>(props: P): P {
  if (isPlain() || typeof props !== "object" || props === null) return props;
  const spoken = { ...props } as Record<string, unknown>;
  if ("children" in spoken) spoken.children = inWords(spoken.children);
  for (const name of readByPeople) {
    if (typeof spoken[name] === "string") spoken[name] = said(spoken[name]);
  }
  // What a component hands on to its parts is made into elements out of our sight.
  if (typeof spoken.slotProps === "object" && spoken.slotProps !== null) {
    spoken.slotProps = Object.fromEntries(
      Object.entries(spoken.slotProps).map(([part, handed]) => [part, speakProps(handed as unknown)]),
    );
  }
  return spoken as P;
}
