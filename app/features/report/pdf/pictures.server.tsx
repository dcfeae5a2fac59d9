import { renderToStaticMarkup } from "react-dom/server";
import { setPlatformAPI } from "echarts/core";
import type { Content, ContentSvg } from "pdfmake/interfaces";
import type { HouseWords } from "~/core/rules";
import type { ReportStage } from "~/formats/report/document";
import { BeadRail } from "../../../ui/bead-rail";
import { chartSvg } from "../../../ui/chart/echarts";
import { fills, percent, segmentsOf } from "../../../ui/share-segments";
import { type Localized, TextProvider } from "../../../words/text";
import { pictureOf } from "../../stages/pictures/picture";
import { figures, set, widthOf } from "./faces.server";
import { withFaces } from "./svg.server";

// Without a browser the chart library guesses how wide its texts are.
setPlatformAPI({
  measureText: (text, font) => {
    const size = Number(/([\d.]+)px/.exec(font ?? "")?.[1] ?? 12);
    return { width: widthOf(text, size, /mono/i.test(font ?? "") ? "reading" : "text") };
  },
});

/** Pixels that a chart is drawn for; the page shows it smaller. */
const drawnFor = 620;

interface Placed {
  readonly svg: ContentSvg;
  readonly caption: string | null;
}

function placed(stage: ReportStage, room: number, words: HouseWords, say: Localized): Placed | null {
  const picture = pictureOf(stage.evaluation, say);
  if (!picture) return null;
  if (picture.kind === "chart") {
    const { option, height } = picture;
    const width = Math.min(room, 430);
    const svg = withFaces(chartSvg(option, drawnFor, height));
    return { svg: { svg, width, height: (height / drawnFor) * width }, caption: null };
  }
  const { caption, ...rail } = picture;
  const svg = renderToStaticMarkup(
    <TextProvider words={words}>
      <BeadRail {...rail} />
    </TextProvider>,
  );
  return { svg: { svg: withFaces(svg), width: Math.min(room, 300) }, caption };
}

/** What a stage found, drawn as on the screen; nothing where it has no picture. */
export function stagePicture(
  stage: ReportStage,
  room: number,
  words: HouseWords,
  say: Localized,
): readonly Content[] {
  const picture = placed(stage, room, words, say);
  if (!picture) return [];
  const { svg, caption } = picture;
  return [
    {
      stack: [svg, ...(caption === null ? [] : [set(caption, { style: "soft", margin: [0, 2, 0, 0] })])],
      margin: [0, 6, 0, 6],
      unbreakable: true,
    },
  ];
}

/** The uncertainty budget as a bar of its shares, with the causes beneath it. */
export function shareBar(stage: ReportStage, room: number, say: Localized): readonly Content[] {
  const segments = segmentsOf(stage.shares, say);
  if (segments.length === 0) return [];
  const width = Math.min(room, 430);
  const gap = 1.5;
  const all = segments.reduce((sum, { part }) => sum + Math.max(part, 0.004), 0);
  const free = width - gap * (segments.length - 1);
  const lengths = segments.map(({ part }) => (Math.max(part, 0.004) / all) * free);
  let x = 0;
  const rects = lengths.map((length, i) => {
    const rect = `<rect x="${x.toFixed(2)}" y="0" width="${length.toFixed(2)}" height="10" fill="${fills[i]}"/>`;
    x += length + gap;
    return rect;
  });
  const square = (fill: string) =>
    `<svg viewBox="0 0 8 8"><rect width="8" height="8" rx="2" fill="${fill}"/></svg>`;
  return [
    { svg: `<svg viewBox="0 0 ${width} 10">${rects.join("")}</svg>`, width, margin: [0, 2, 0, 3] },
    ...segments.map(({ label, part }, i): Content => ({
      columns: [
        { svg: square(fills[i] ?? ""), width: 8, margin: [0, 2.5, 0, 0] },
        { width: "auto", ...set(label) },
        { width: "auto", ...figures(percent(part), { style: "soft" }) },
      ],
      columnGap: 6,
    })),
  ];
}
