import { Type } from "@sinclair/typebox";
import { ofColumn, trimmed } from "./edit";
import type { InputKind } from "./kind";
import { inputSchema, type Made, Text } from "./parts";

/** An amount read off the line of an earlier stage by this stage's absorbance. */
export const readOffSchema = () =>
  inputSchema("read-off", {
    of: Text,
    per: Type.Literal("trial"),
    /** Key of the calibration stage. */
    stage: Text,
    /** Symbol of the absorbance. */
    reading: Text,
  });
export type ReadOffInput = Made<typeof readOffSchema>;

export const readOff: InputKind<ReadOffInput> = {
  unit: ({ stage }, earlier) => earlier.ofAxis(stage),
  decimals: () => null,
  fields: () => [],
  quantity: () => null,
  photometric: true,
  takesOver: ({ stage, reading }) => ({ stage, readBy: reading }),
  suspect: () => ({
    often: 1.2,
    words: (side) =>
      ({
        high: "the absorbance: something else may color the flask, or the blank was not deducted",
        low: "the absorbance: the color may not have come out fully, or the blank reads too much",
        either: "the absorbance and the line",
      })[side],
  }),
  described: () => ", read off the line",
  edit: {
    name: "read off a line",
    columns: [
      { key: "stage", label: "Stage", wide: 2.5, choices: "stages" },
      { key: "result", label: "By the absorbance", wide: 2, reading: true },
      ofColumn,
    ],
    row: ({ of, stage, reading }) => ({ of, stage, result: reading }),
    input: (row) => ({
      of: trimmed(row, "of"),
      per: "trial",
      stage: trimmed(row, "stage"),
      reading: trimmed(row, "result"),
    }),
  },
};
