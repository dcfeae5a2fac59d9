import type { Method } from "../../core/method";
import type { HouseRules } from "../../core/rules";
import type { RunRecord } from "../../core/run";
import type { ShelfFile } from "../../formats/archive/schema";
import { sharedText } from "./import-status";

/** Runs, methods and bottles from a file, and who imports them. */
export interface ImportRecords {
  readonly file: string;
  readonly person: string;
  readonly from: string | null;
  readonly runs: readonly RunRecord[];
  readonly methods: readonly Method[];
  readonly shelf: ShelfFile | null;
}

type Bare = Omit<RunRecord, "method" | "houseRules">;

/** The same as a line of the journal holds it: methods and house rules, which many runs share, stand there once, and runs name their places. */
export interface PackedImport extends Omit<ImportRecords, "runs"> {
  readonly shared: { readonly methods: readonly Method[]; readonly rules: readonly HouseRules[] };
  readonly packed: readonly (Bare & { readonly method: number; readonly houseRules: number })[];
}

/** The place of a value in a list, to which it is added where nothing there says the same. */
function placeIn<T extends object>(list: T[], textOf: (value: T) => string) {
  const places = new Map<string, number>();
  return (value: T): number => {
    const text = textOf(value);
    const place = places.get(text) ?? list.push(value) - 1;
    places.set(text, place);
    return place;
  };
}

export function packed({ runs, ...asked }: ImportRecords): PackedImport {
  const shared = { methods: [] as Method[], rules: [] as HouseRules[] };
  const ofMethod = placeIn(shared.methods, (method) => `${method.id} ${sharedText(method)}`);
  const ofRules = placeIn(shared.rules, sharedText);
  return {
    ...asked,
    packed: runs.map(({ method, houseRules, ...run }) => ({
      ...run,
      ...{ method: ofMethod(method), houseRules: ofRules(houseRules) },
    })),
    shared,
  };
}

/** What a line of the journal holds; lines of earlier versions hold the runs as they are. */
export function unpacked(line: PackedImport | ImportRecords): ImportRecords {
  if ("runs" in line) return line;
  const { packed: runs, shared, ...asked } = line;
  return {
    ...asked,
    runs: runs.map(({ method, houseRules, ...run }): RunRecord => {
      const [by, rules] = [shared.methods[method], shared.rules[houseRules]];
      if (!by || !rules) throw new Error("A run names a method or house rules that its line does not hold");
      return { ...run, method: by, houseRules: rules };
    }),
  };
}
