import { Type } from "@sinclair/typebox";
import { success } from "../result";
import type { ChangeKind } from "./change";
import { Closed, type Made, Short } from "./parts";
import { msg } from "../text";

export const renameSchema = () =>
  Type.Object(
    {
      intent: Type.Literal("rename"),
      title: Type.String({ minLength: 1, maxLength: 120, pattern: "\\S" }),
      sample: Short,
      bench: Short,
    },
    Closed,
  );

interface About {
  readonly title: string;
  readonly sample: string;
  readonly bench: string;
}

const words = ({ title, sample, bench }: About) =>
  [title, sample, bench].filter((word) => word.trim() !== "").join(", ");

/** What a run is called, of which sample, and at which bench. */
export const rename: ChangeKind<Made<typeof renameSchema>> = {
  timers: true,
  apply(record, request) {
    const { title, sample, bench } = record;
    const after = {
      title: request.title.trim(),
      sample: request.sample.trim(),
      bench: request.bench.trim(),
    };
    return success({
      record: { ...record, ...after },
      inverse: { do: "run", title, sample, bench },
      entry: { description: msg`run renamed`, detail: { from: words(record), to: words(request) } },
    });
  },
};
