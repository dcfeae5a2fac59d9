import { type Static, Type } from "@sinclair/typebox";
import {
  type ComputedStage,
  concluding,
  type Method,
  MethodSchema,
  StageDefinitionSchema,
} from "~/core/method";
import { type RunRecord, RunRecordSchema } from "~/core/run";
import { inEnglish } from "~/core/text";
import { ProofSchema } from "./proof/proof";
import { StatedResultSchema } from "./results/schema";

/*
 * In files the stages of a method end with one that concludes, and a run has a record of it that holds nothing. In the program
 * concluding is a property of every run: it is taken off what is read, and put behind what is written.
 */

const { key: Key, title: Title } = StageDefinitionSchema.anyOf[0].properties;
const ConcludeSchema = Type.Object(
  { kind: Type.Literal("conclude"), key: Key, title: Title, of: Key },
  { additionalProperties: false },
);
type Conclude = Static<typeof ConcludeSchema>;

/** A method as files hold it. */
export const MethodFileSchema = Type.Object(
  {
    ...MethodSchema.properties,
    stages: Type.Array(Type.Union([...StageDefinitionSchema.anyOf, ConcludeSchema]), {
      minItems: 1,
      maxItems: 20,
    }),
  },
  { additionalProperties: false },
);
export type MethodFile = Static<typeof MethodFileSchema>;

/** A run as files hold it, with the results that it had where it was written, and what shows later whether it is as it was. */
export const RunFileSchema = Type.Object(
  {
    ...RunRecordSchema.properties,
    method: MethodFileSchema,
    results: Type.Optional(Type.Array(StatedResultSchema, { maxItems: 500 })),
    proof: Type.Optional(ProofSchema),
  },
  { additionalProperties: false, $id: RunRecordSchema.$id ?? "", title: RunRecordSchema.title ?? "" },
);
export type RunFile = Static<typeof RunFileSchema>;

const concludes = (stage: ComputedStage | Conclude): stage is Conclude => stage.kind === "conclude";

export const methodOfFile = (file: MethodFile): Method => ({
  ...file,
  stages: file.stages.filter((stage) => !concludes(stage)),
});

export function fileOfMethod(method: Method): MethodFile {
  const of = method.stages.at(-1)?.key ?? "";
  return {
    ...method,
    stages: [
      ...method.stages,
      { kind: "conclude", key: concluding.key, title: inEnglish(concluding.title), of },
    ],
  };
}

export function recordOfFile({ proof: _, results: __, ...file }: RunFile): RunRecord {
  const ends = new Set(file.method.stages.filter(concludes).map(({ key }) => key));
  return {
    ...file,
    method: methodOfFile(file.method),
    stages: file.stages.filter(({ key }) => !ends.has(key)),
  };
}

export function fileOfRecord(record: RunRecord): RunFile {
  const { key } = concluding;
  return {
    ...record,
    method: fileOfMethod(record.method),
    stages: [...record.stages, { id: key, key, observations: [], trials: [] }],
  };
}

/** What a conclusion in a file names that is not there, in words; null where all is well. */
export function conclusionProblem({
  stages,
}: MethodFile): { readonly at: number; readonly message: string } | null {
  const at = stages.findIndex(
    (stage, i) => concludes(stage) && !stages.slice(0, i).some(({ key }) => key === stage.of),
  );
  const stage = stages[at];
  return stage ? { at, message: `Stage "${stage.title}" concludes a stage that is not there` } : null;
}
