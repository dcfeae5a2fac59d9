import { useMemo } from "react";
import type { ComputedEvaluation } from "~/core/stages";
import { Chart } from "../../../ui/chart/chart";
import { useSay } from "../../../words/text";
import { CaptionedRail } from "../shared/captioned-rail";
import { pictureOf } from "./picture";

interface StagePictureProps {
  readonly stage: ComputedEvaluation;
  /** Name of the file that it is saved as. */
  readonly title: string;
}

/** What a stage found, as a picture to look back at; nothing where it has none. */
export function StagePicture({ stage, title }: StagePictureProps) {
  const say = useSay();
  const picture = useMemo(() => pictureOf(stage, say), [stage, say]);
  if (!picture) return null;
  if (picture.kind === "rail") return <CaptionedRail {...picture} />;
  const { option, label, height, what, many } = picture;
  return <Chart label={label} option={option} height={height} fileName={`${title} ${what}`} many={many} />;
}
