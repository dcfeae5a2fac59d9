import { createContext } from "react";
import type { Input } from "~/core/inputs";
import type { RunShelf, SolutionView } from "~/protocol/shelf";

/** What the shelf has to do with the run that is looked at. */
export const ShelfContext = createContext<RunShelf>({
  bottles: [],
  shelved: [],
  newer: [],
  recomputations: [],
});

/** Bottles that an input can be taken from. */
export const bottlesFor = (input: Input, { bottles }: RunShelf): SolutionView[] =>
  (input.is === "given" || input.is === "purity") && input.of !== undefined
    ? bottles.filter(
        (b) => b.formula === input.of && b.current?.unit === (input.is === "purity" ? "%" : input.unit),
      )
    : [];
