import { colors, fonts } from "../../theme/theme";

/** Inks that tell people or curves apart on white, each with a mark of its own: never color alone. */
export const inks = [
  "#0f5a5e",
  "#9d3526",
  "#3b4f9b",
  "#7a4f05",
  "#6b2f7d",
  "#2f6b34",
  "#56625f",
  "#a3195b",
] as const;
export const marks = [
  "circle",
  "rect",
  "triangle",
  "diamond",
  "emptyCircle",
  "emptyRect",
  "emptyTriangle",
  "emptyDiamond",
] as const;

export const text = { fontFamily: fonts.text, color: colors.ink, fontSize: 13 } as const;

/** An axis with its name beside it and quiet lines. */
export const axis = (
  name: string,
  more: { readonly axisLabel?: object; readonly [key: string]: unknown } = {},
) => ({
  type: "value",
  name,
  nameLocation: "middle",
  nameMoveOverlap: false,
  nameTextStyle: { ...text, color: colors.ink, fontWeight: 600 },
  axisLine: { show: true, lineStyle: { color: colors.lineStrong } },
  splitLine: { lineStyle: { color: colors.line } },
  ...more,
  axisLabel: {
    formatter: (value: number) => String(Number(value.toPrecision(6))),
    ...text,
    color: colors.inkSoft,
    fontFamily: fonts.reading,
    fontSize: 12,
    ...more.axisLabel,
  },
});

/** Drawn and not written as HTML, so that a name that somebody typed, or a file brought, is never more than text. */
export const tooltip = {
  renderMode: "richText",
  backgroundColor: colors.ink,
  borderWidth: 0,
  textStyle: { fontFamily: fonts.text, color: "#ffffff", fontSize: 13 },
} as const;
