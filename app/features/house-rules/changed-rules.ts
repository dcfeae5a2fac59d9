import type { HouseRules } from "~/core/rules";
import { ruleGroups, textsOfRules } from "~/core/rules";

/** What two sets of house rules differ in, as the form names it: before and after. */
export function changedRules(before: HouseRules, after: HouseRules): { from: string; to: string } {
  const [was, is] = [textsOfRules(before), textsOfRules(after)];
  const changed = ruleGroups.flatMap(({ fields }) =>
    fields.filter(({ name }) => (was[name] ?? "") !== (is[name] ?? "")),
  );
  const shown = (texts: ReturnType<typeof textsOfRules>) =>
    changed
      .map(({ name, label, choices }) => {
        const value = texts[name] ?? "";
        const words = choices?.find(([choice]) => choice === value)?.[1] ?? (value || "none");
        return `${label}: ${words}`;
      })
      .join("; ");
  return { from: shown(was), to: shown(is) };
}
