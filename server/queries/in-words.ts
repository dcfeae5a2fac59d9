import { isShipped } from "../../catalog/methods";
import type { Method } from "../../core/method";
import type { HouseWords } from "../../core/rules";
import type { RunRecord } from "../../core/run";
import type { RunListItem, RunState } from "../../protocol/answers";
import { languageOf, type Localize, localizer } from "../../words/localizer";
import { methodInWords } from "../../words/method-texts";
import type { DatabaseConnection } from "../database/types";
import { currentHouseRules } from "./house-rules";

/** What screens are told, in the words of the lab: texts of the shipped methods, which the core takes as they are. */
export interface LabWords {
  readonly say: Localize;
  readonly method: (method: Method) => Method;
  readonly record: (record: RunRecord) => RunRecord;
  readonly state: (state: RunState) => RunState;
  readonly item: (item: RunListItem) => RunListItem;
}

/** Methods of a version are one object for as long as the server runs: each is put into words once. */
const known = new Map<string, WeakMap<Method, Method>>();

/** The words that the lab uses now. */
export async function labWords(db: DatabaseConnection): Promise<LabWords> {
  return wordsOfLab((await currentHouseRules(db)).data.words);
}

export function wordsOfLab(words: HouseWords): LabWords {
  const say = localizer(words);
  const asWritten = languageOf(words) === "en-US" && words.volume === "mL";
  const key = `${words.titer} ${words.volume}`;
  const localized = known.get(key) ?? new WeakMap<Method, Method>();
  known.set(key, localized);
  const method = (as: Method): Method => {
    if (asWritten || !isShipped(as.id)) return as;
    const there = localized.get(as) ?? methodInWords(as, say);
    localized.set(as, there);
    return there;
  };
  const record = (as: RunRecord): RunRecord => ({ ...as, method: method(as.method) });
  const item = (as: RunListItem): RunListItem => {
    if (asWritten || !isShipped(as.methodId)) return as;
    const titled = (title: RunListItem["summary"]["chain"][number]["title"]) =>
      typeof title === "string" ? say({ message: title }) : title;
    const chain = as.summary.chain.map((bead) => ({ ...bead, title: titled(bead.title) }));
    return { ...as, methodTitle: say({ message: as.methodTitle }), summary: { ...as.summary, chain } };
  };
  return { say, method, record, state: (as) => ({ ...as, record: record(as.record) }), item };
}
