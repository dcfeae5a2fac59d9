import { type ChangeContext, drafted, type TrialDraft } from "../change";
import type { RunRecord } from "../run";
import { allowsOf, compileMethod } from "../stages";
import { evaluateRun } from "./evaluate";

type Own = Pick<ChangeContext, "now" | "person" | "newId"> &
  Pick<Partial<ChangeContext>, "bottle" | "last" | "wrongRules">;

/** What a change needs to know: when and by whom it is made, and what all kinds of stages say. */
export const changeContext = (own: Own): ChangeContext => ({
  allows: allowsOf,
  holdsTogether: (method) => compileMethod(method).ok,
  wrongRules: () => null,
  hasResult: (record) => evaluateRun(record).result !== null,
  ...own,
});

/** The record as it would be if what is being typed for one trial were saved; see `drafted`. */
export const withDraft = (record: RunRecord, draft: TrialDraft): RunRecord =>
  drafted(record, draft, changeContext({ now: record.startedAt, person: "", newId: (of) => of }));
