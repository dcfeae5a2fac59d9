import type { IsothermStage } from "~/core/method";
import { msg } from "~/core/text";
import type { EditedKind } from "./kind";

/** An isotherm: its bottles are carried through, and its texts are written here. None is begun in the editor. */
export const isotherm: EditedKind<IsothermStage> = {
  words: msg`an isotherm through the bottles before`,
  starters: [],
  switchable: false,
  draft: (stage) => ({ carried: stage }),
  stage: ({ carried }, shared) => {
    const { accept: _, ...own } = carried as IsothermStage;
    return { ...own, ...shared };
  },
  gaps: () => [],
  presumed: ({ presumed }) => presumed,
};
