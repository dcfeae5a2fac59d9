import type { HouseRules } from "~/core/rules";
import { ruleGroups, textsOfRules } from "~/core/rules";
import { msg, type Phrase, joined } from "~/core/text";

/** What two sets of house rules differ in, as the form names it: before and after. */
export function changedRules(before: HouseRules, after: HouseRules): { from: Phrase; to: Phrase } {
  const [was, is] = [textsOfRules(before), textsOfRules(after)];
  const changed = ruleGroups.flatMap(({ fields }) =>
    fields.filter(({ name }) => (was[name] ?? "") !== (is[name] ?? "")),
  );
  const shown = (texts: ReturnType<typeof textsOfRules>) =>
    joined(
      changed.map(({ name, label, choices }) => {
        const value = texts[name] ?? "";
        const words = choices?.find(([choice]) => choice === value)?.[1] ?? (value || msg`none`);
        return msg`${label}: ${words}`;
      }),
      "; ",
    );
  return { from: shown(was), to: shown(is) };
}
