import { type Static, Type } from "@sinclair/typebox";
import { absorbanceSchema } from "./absorbance";
import { blankSchema } from "./blank";
import { constantSchema } from "./constant";
import { byMassSchema } from "./by-mass";
import { countSchema } from "./count";
import { curveSchema } from "./curve";
import { deliveredSchema } from "./delivered";
import { dropsSchema } from "./drops";
import { flaskSchema } from "./flask";
import { fromStageSchema } from "./from-stage";
import { givenSchema } from "./given";
import { graduatedSchema } from "./graduated";
import { massSchema } from "./mass";
import { meterSchema } from "./meter";
import { phSchema } from "./ph";
import { pipetteSchema } from "./pipette";
import { puritySchema } from "./purity";
import { readOffSchema } from "./read-off";
import { temperatureSchema } from "./temperature";
import { titerSchema } from "./titer";
import { traceSchema } from "./trace";

export const InputSchema = Type.Union([
  massSchema(),
  puritySchema(),
  titerSchema(),
  pipetteSchema(),
  graduatedSchema(),
  flaskSchema(),
  byMassSchema(),
  dropsSchema(),
  countSchema(),
  deliveredSchema(),
  temperatureSchema(),
  phSchema(),
  absorbanceSchema(),
  blankSchema(),
  readOffSchema(),
  traceSchema(),
  curveSchema(),
  meterSchema(),
  constantSchema(),
  givenSchema(),
  fromStageSchema(),
]);
export type Input = Static<typeof InputSchema>;
export type InputOf<K extends Input["is"]> = Extract<Input, { is: K }>;
