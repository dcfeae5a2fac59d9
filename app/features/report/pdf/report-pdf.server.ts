import type { Column, Content, TableCell } from "pdfmake/interfaces";
import { unitText } from "~/core/text";
import type { ReportCell, ReportRow } from "~/formats/report/trials";
import type { ReportDocument, ReportStage } from "~/formats/report/document";
import { colors } from "../../../theme/theme";
import { equationSides } from "../../../ui/equation-sides";
import { sentence, unbroken } from "../../../ui/number-text";
import type { ReportProof } from "../ends";
import { checksumOver, keyOfLab, deferring, factsOf, howKnown, signatures } from "../words";
import { figures, set } from "./faces.server";
import { formula } from "./formula.server";
import { headed, onPaper, roomOn } from "./paper.server";
import {
  dated,
  heading,
  list,
  paragraph,
  type PrintedAs,
  rule,
  ruledTable,
  subheading,
} from "./parts.server";
import { shareBar, stagePicture } from "./pictures.server";

function head(report: ReportDocument, letterhead: string, { say, room }: PrintedAs): Content[] {
  const { main } = report;
  const facts = factsOf(report).map(({ name, text, at }): Column => ({
    width: "auto",
    stack: [set(say(name), { style: "soft" }), set(at === null ? say(text) : dated(at, say, "datedTime"))],
  }));
  const result: Content[] = main
    ? [
        rule(room, 1.5, colors.teal),
        set(say(main.name), { style: "h3", margin: [0, 6, 0, 0] }),
        figures(say(main.shown.text), { fontSize: 19, margin: [0, 1, 0, 1] }),
        ...(main.shown.plusMinus === "0" ? [] : [set(say`± is ${report.plusMinus}.`, { style: "soft" })]),
        rule(room, 0.5, colors.line),
      ]
    : [];
  return [
    ...headed(letterhead),
    set(report.title, { style: "h1" }),
    { columns: facts, columnGap: 22, margin: [0, 6, 0, 10] },
    ...result,
  ];
}

function methodPart({ method }: ReportDocument, { say, room }: PrintedAs): Content {
  const look = { size: 11, color: colors.ink, room };
  return {
    unbreakable: true,
    stack: [
      heading(say`Method`),
      set(say`${method.title}, version ${method.version}`),
      ...method.equations.map((equation): Content => ({
        columns: equationSides(equation).map((side) => ({
          ...formula(side, { ...look, room: room / 2 - 6 }, say),
        })),
        columnGap: 6,
        margin: [0, 4, 0, 0],
      })),
    ],
  };
}

function bottles({ bottles: used }: ReportDocument, { say }: PrintedAs): Content[] {
  if (used.length === 0) return [];
  const rows = used.map((bottle) =>
    [
      set(bottle.code),
      set(bottle.name),
      figures(say(bottle.known)),
      set(say(howKnown[bottle.how])),
      set(dated(bottle.at, say, "dated")),
    ].map((cell) => cell as TableCell),
  );
  const heads = [say`Bottle`, say`What it is`, say`Known`, say`How`, say`Since`];
  return [heading(say`Solutions and solids`), ruledTable(heads, rows)];
}

function cellOf({ text, was }: ReportCell, struck: boolean, { say }: PrintedAs): TableCell {
  const old = { color: colors.inkSoft, decoration: "lineThrough" } as const;
  const now = unbroken(say(text));
  if (struck) return figures(now, old);
  // A number stays with its unit; only lists of readings are long.
  const noWrap = now.length < 30;
  return { text: [...was.flatMap((one) => [figures(one.text, old), " "]), figures(now, { noWrap })], noWrap };
}

const rowOf = (row: ReportRow, as: PrintedAs): TableCell[] => {
  const color = row.struck ? colors.inkSoft : colors.ink;
  return [
    set(as.say(row.name), { color }),
    ...row.cells.map((cell) => cellOf(cell, row.struck, as)),
    set(as.say(row.remark), { color }),
  ];
};

function trials({ table }: ReportStage, as: PrintedAs): Content[] {
  if (!table) return [];
  const heads = [as.say`Trial`, ...table.heads.map((name) => as.say(name)), ""];
  return [
    ruledTable(
      heads,
      table.rows.map((row) => rowOf(row, as)),
    ),
  ];
}

function readings({ readings: once }: ReportStage, { say }: PrintedAs): Content[] {
  return once.map(({ label, text, unit, bottle }): Content => ({
    text: [
      set(`${say(label)}  `, { color: colors.inkSoft }),
      figures(`${text} ${say(unitText(unit))}`),
      set(bottle === null ? "" : ` (${bottle})`),
    ],
  }));
}

function results(stage: ReportStage, report: ReportDocument, as: PrintedAs): Content[] {
  const { say, room } = as;
  const [first] = stage.results;
  const found = stage.results.map(({ name, shown }, i): Content => ({
    margin: [0, 2, 0, 2],
    text: [
      set(`${say(name)}: `),
      figures(say(shown.text), { bold: i === 0 }),
      set(shown.nearestWhole === undefined ? "" : say`, nearest whole number ${shown.nearestWhole}`),
    ],
  }));
  const budget: Content[] =
    first && first.shown.plusMinus !== "0" && stage.shares.length > 0
      ? [
          {
            unbreakable: true,
            stack: [
              subheading(say`Uncertainty budget (± is ${report.plusMinus})`),
              ...shareBar(stage, room, say),
            ],
          },
        ]
      : [];
  const reasons = stage.reasons.map((reason) => say(reason)).join(" ");
  return [
    ...found,
    ...(stage.problem === null ? [] : [paragraph(say`No result: ${stage.problem}.`)]),
    ...(reasons === "" ? [] : [paragraph(unbroken(reasons))]),
    ...stage.warnings.map((warning) => paragraph(unbroken(say(warning)), colors.amberDeep)),
    ...budget,
    ...(stage.improvement === null ? [] : [paragraph(unbroken(sentence(say(stage.improvement))))]),
  ];
}

function working({ working: steps }: ReportStage, { say, room }: PrintedAs): Content[] {
  if (steps.length === 0) return [];
  const indent = 16;
  const look = { size: 10.5, color: colors.ink, room: room - indent };
  const line = (tex: string, color: string): Content[] =>
    tex === "" ? [] : [{ ...formula(tex, { ...look, color }, say), margin: [indent, 4, 0, 0] }];
  return steps.map((step, i): Content => ({
    unbreakable: true,
    margin: [0, 4, 0, 4],
    stack: [
      // The heading is never left alone at the end of a page.
      ...(i === 0 ? [subheading(say`Working`)] : []),
      { columns: [{ width: indent, ...figures(`${i + 1}`) }, set(say(step.title), { bold: true })] },
      ...line(step.names, colors.ink),
      ...line(step.numbers, colors.inkSoft),
      ...line(`\\boldsymbol{${step.value}}`, colors.ink),
    ],
  }));
}

const stagePart = (stage: ReportStage, report: ReportDocument, as: PrintedAs): Content[] => [
  {
    headlineLevel: 2,
    stack: [rule(as.room, 0.5, colors.line), heading(stage.title, { margin: [0, 8, 0, 4] })],
  },
  ...readings(stage, as),
  ...trials(stage, as),
  ...stagePicture(stage, as.room, as.words, as.say),
  ...results(stage, report, as),
  ...(as.working === "full" ? working(stage, as) : []),
];

function ends(report: ReportDocument, proof: ReportProof, { say, room }: PrintedAs): Content[] {
  const signed = signatures.map((words, i): Content => ({
    stack: [
      rule(room / 2 - 15, 0.8, colors.ink),
      set(say(words), { style: "soft", margin: [0, 2, 0, 0] }),
      ...(i === 1 && report.countersigned !== null
        ? [set(say`Countersigned in the program: ${report.countersigned}`, { style: "soft" })]
        : []),
    ],
  }));
  return [
    {
      columns: [list(say`Cautions`, report.cautions, say), list(say`Waste`, report.waste, say)],
      columnGap: 24,
    },
    set(say(deferring), { style: "soft", margin: [0, 6, 0, 0] }),
    { columns: signed, columnGap: 30, margin: [0, 44, 0, 0], unbreakable: true },
    {
      unbreakable: true,
      margin: [0, 16, 0, 0],
      stack: [
        rule(room, 0.5, colors.line),
        set(say(checksumOver(report.id, proof.readings)), { style: "soft", margin: [0, 4, 0, 0] }),
        figures(proof.head, { fontSize: 8 }),
        ...(proof.key === null
          ? []
          : [set(say(keyOfLab), { style: "soft" }), figures(proof.key, { fontSize: 8 })]),
      ],
    },
  ];
}

/** The report of a run as PDF: the same content as on the screen. */
export function reportPdf(
  report: ReportDocument,
  proof: ReportProof,
  letterhead: string,
  asked: Omit<PrintedAs, "room">,
): Promise<Uint8Array<ArrayBuffer>> {
  const as = { ...asked, room: roomOn(asked.paper) };
  return onPaper({ title: report.title, subject: as.say`Report of ${report.title}` }, as, [
    ...head(report, letterhead, as),
    methodPart(report, as),
    ...bottles(report, as),
    ...report.stages.flatMap((stage) => stagePart(stage, report, as)),
    ...ends(report, proof, as),
  ]);
}
