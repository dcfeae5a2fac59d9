import { createContext } from "react";
import { type Input, statedOf } from "~/core/inputs";
import type { RunShelf, SolutionView } from "~/protocol/shelf";

/** What the shelf has to do with the run that is looked at. */
export const ShelfContext = createContext<RunShelf>({
  bottles: [],
  shelved: [],
  newer: [],
  recomputations: [],
});

/** Bottles that an input can be taken from. */
export function bottlesFor(input: Input, { bottles }: RunShelf): SolutionView[] {
  const shelf = statedOf(input)?.shelf;
  return shelf
    ? bottles.filter(({ formula, current }) => formula === shelf.formula && current?.unit === shelf.unit)
    : [];
}
