import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import GlobalStyles from "@mui/material/GlobalStyles";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { ReportDocument } from "~/formats/report/document";
import { colors, fonts } from "../../theme/theme";
import { EquationLine } from "../../ui/equation";
import { together } from "../../ui/number-text";
import { noPrint, Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";
import { useSay } from "../../words/text";
import { Files } from "./files";
import { ReportStageView } from "./report-stage";
import { stacked } from "./stacked";
import { Table } from "./table";

/** What shows whether a copy of the record is as it was. */
export interface ReportProof {
  readonly head: string;
  readonly readings: number;
  /** Fingerprint of the lab's key; null where it has none. */
  readonly key: string | null;
}

interface ReportPageProps {
  readonly report: ReportDocument;
  readonly proof: ReportProof;
}

const papers = ["A4", "Letter"] as const;
type Paper = (typeof papers)[number];

/** Margins and page numbers, which only a rule of the page itself can say. */
const pageRule = (paper: Paper, title: string): string =>
  `@page { size: ${paper === "A4" ? "A4" : "letter"}; margin: 16mm 16mm 18mm;
    @bottom-left { content: ${JSON.stringify(title)}; font: 8pt ${fonts.text}; color: #56625f; }
    @bottom-right { content: counter(page) " / " counter(pages); font: 8pt ${fonts.text}; color: #56625f; } }`;

/** The report of a run, to read, to print, and beside it the files in which the run leaves the lab. */
export function ReportPage({ report, proof }: ReportPageProps) {
  const say = useSay();
  const [paper, setPaper] = useState<Paper>("A4");
  const [full, setFull] = useState(true);
  return (
    <Page
      width={1120}
      title={<Box component="span" sx={noPrint}>{say`Report`}</Box>}
      note={
        <Box component="span" sx={noPrint}>
          {say`As it will be printed. What was struck out is shown as struck.`}
        </Box>
      }
      actions={<Actions report={report} paper={paper} setPaper={setPaper} full={full} setFull={setFull} />}
    >
      <GlobalStyles styles={pageRule(paper, report.title)} />
      <Box sx={{ display: "grid", gap: 2 }}>
        <Files runId={report.id} />
        <Sheet
          component="article"
          aria-label={say`Report of ${report.title}`}
          sx={{
            ...stacked(3),
            p: { xs: 2, sm: 4 },
            "@media print": { border: 0, p: 0, fontSize: "10pt" },
          }}
        >
          <Head report={report} />
          <MethodPart report={report} />
          <Bottles report={report} />
          {report.stages.map((stage) => (
            <ReportStageView key={stage.key} stage={stage} report={report} full={full} />
          ))}
          <Ends report={report} proof={proof} />
        </Sheet>
      </Box>
    </Page>
  );
}

interface ActionsProps extends Pick<ReportPageProps, "report"> {
  readonly paper: Paper;
  readonly setPaper: (paper: Paper) => void;
  readonly full: boolean;
  readonly setFull: (full: boolean) => void;
}

/** How it is printed, and the way back. */
function Actions({ report, paper, setPaper, full, setFull }: ActionsProps) {
  const say = useSay();
  const back = `/runs/${report.id}?stage=conclude`;
  return (
    <>
      <Choice
        label={say`Paper`}
        value={paper}
        options={papers.map((one) => [one, one] as const)}
        onChoose={(next) => setPaper(next as Paper)}
      />
      <Choice
        label={say`Working`}
        value={full ? "full" : "short"}
        options={[
          ["full", say`full working`],
          ["short", say`short`],
        ]}
        onChoose={(next) => setFull(next === "full")}
      />
      <Button variant="contained" onClick={() => window.print()}>
        {say`Print`}
      </Button>
      <Button component={Link} to={back} variant="outlined">
        {say`Back to the run`}
      </Button>
    </>
  );
}

interface ChoiceProps {
  readonly label: string;
  readonly value: string;
  readonly options: readonly (readonly [value: string, words: string])[];
  readonly onChoose: (value: string) => void;
}

const Choice = ({ label, value, options, onChoose }: ChoiceProps) => (
  <ToggleButtonGroup
    exclusive
    size="small"
    value={value}
    aria-label={label}
    onChange={(_event, next: string | null) => next !== null && onChoose(next)}
  >
    {options.map(([key, words]) => (
      <ToggleButton key={key} value={key}>
        {words}
      </ToggleButton>
    ))}
  </ToggleButtonGroup>
);

/** What, who, when, and the result that the run was for. */
function Head({ report }: { readonly report: ReportDocument }) {
  const say = useSay();
  const { main, people } = report;
  const facts: readonly (readonly [string, React.ReactNode])[] = [
    [say`Sample`, report.sample],
    [say`Bench`, report.bench],
    [say`Carried out by`, people.join(", ")],
    [say`Begun`, <When key="begun" at={report.startedAt} as="time" />],
    [
      say`Finished`,
      report.finishedAt ? <When key="end" at={report.finishedAt} as="time" /> : say`not finished`,
    ],
  ];
  return (
    <Box>
      <Typography variant="h1" component="h2" sx={{ fontSize: "1.7rem" }}>
        {report.title}
      </Typography>
      <Box component="dl" sx={{ m: 0, mt: 1, display: "flex", flexWrap: "wrap", columnGap: 4, rowGap: 0.5 }}>
        {facts
          .filter(([, value]) => value !== "")
          .map(([name, value]) => (
            <Box key={name}>
              <Typography component="dt" variant="caption" color="textSecondary">
                {name}
              </Typography>
              <Box component="dd" sx={{ m: 0 }}>
                {value}
              </Box>
            </Box>
          ))}
      </Box>
      {main && (
        <Box
          sx={{
            mt: 2,
            py: 1.5,
            borderTop: `2px solid ${colors.teal}`,
            borderBottom: `1px solid ${colors.line}`,
          }}
        >
          <Typography variant="h3">{say(main.name)}</Typography>
          <Box
            data-testid="report-result"
            sx={{ fontFamily: fonts.reading, fontSize: "1.9rem", lineHeight: 1.25 }}
          >
            {say(main.shown.text)}
          </Box>
          {main.shown.plusMinus !== "0" && (
            <Typography variant="body2" color="textSecondary">
              {say`± is ${report.plusMinus}.`}
            </Typography>
          )}
        </Box>
      )}
    </Box>
  );
}

function MethodPart({ report: { method } }: { readonly report: ReportDocument }) {
  const say = useSay();
  return (
    <Box component="section" sx={{ breakInside: "avoid" }}>
      <Typography variant="h2">{say`Method`}</Typography>
      <Typography>{say`${method.title}, version ${method.version}`}</Typography>
      {method.equations.map((equation) => (
        <EquationLine key={equation} source={equation} />
      ))}
    </Box>
  );
}

/** The bottles that were used, with the concentrations that they had then. */
function Bottles({ report: { bottles } }: { readonly report: ReportDocument }) {
  const say = useSay();
  if (bottles.length === 0) return null;
  const how = {
    weighed: say`by weighing`,
    diluted: say`by dilution`,
    standardized: say`standardized`,
    certificate: say`certificate`,
    nominal: say`as labeled`,
  };
  return (
    <Box component="section" sx={{ breakInside: "avoid" }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        {say`Solutions and solids`}
      </Typography>
      <Table heads={[say`Bottle`, say`What it is`, say`Known`, say`How`, say`Since`]}>
        {bottles.map((bottle) => (
          <tr key={bottle.assignmentId}>
            <td>{bottle.code}</td>
            <td>{bottle.name}</td>
            <td style={{ fontFamily: fonts.reading }}>
              {bottle.value} {bottle.unit} {say(bottle.plusMinus)}
            </td>
            <td>{how[bottle.how]}</td>
            <td>
              <When at={bottle.at} as="day" />
            </td>
          </tr>
        ))}
      </Table>
    </Box>
  );
}

/** Cautions and waste, places for signatures, and by what a copy of the record is proven. */
function Ends({ report, proof }: ReportPageProps) {
  const say = useSay();
  return (
    <>
      <Box
        component="section"
        sx={{
          display: "grid",
          gap: 2,
          gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" },
          breakInside: "avoid",
        }}
      >
        <List title={say`Cautions`} items={report.cautions} />
        <List title={say`Waste`} items={report.waste} />
      </Box>
      <Typography variant="body2">
        {say`Safety data sheets, local codes and licensed practice come before what stands here.`}
      </Typography>
      <Box
        sx={{
          display: "grid",
          gap: 4,
          gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" },
          breakInside: "avoid",
          pt: 4,
        }}
      >
        {[say`Carried out by, date`, say`Checked by, date`].map((words) => (
          <Box key={words} sx={{ borderTop: `1px solid ${colors.ink}`, pt: 0.5 }}>
            <Typography variant="body2">{words}</Typography>
          </Box>
        ))}
      </Box>
      <Box
        sx={{ borderTop: `1px solid ${colors.line}`, pt: 1, breakInside: "avoid" }}
        data-testid="report-proof"
      >
        <Typography variant="body2" color="textSecondary">
          {say`Run ${report.id}. Checksum over its ${proof.readings} readings and all that stands around them (SHA-256):`}
        </Typography>
        <Box sx={{ fontFamily: fonts.reading, fontSize: "0.82rem", overflowWrap: "anywhere" }}>
          {proof.head}
        </Box>
        {proof.key !== null && (
          <Typography variant="body2" color="textSecondary" sx={{ mt: 0.5 }}>
            {say`Key of this lab (Ed25519):`}{" "}
            <Box component="span" sx={{ fontFamily: fonts.reading, fontSize: "0.82rem" }}>
              {proof.key}
            </Box>
          </Typography>
        )}
      </Box>
    </>
  );
}

function List({ title, items }: { readonly title: string; readonly items: readonly string[] }) {
  if (items.length === 0) return null;
  return (
    <Box>
      <Typography variant="h2">{title}</Typography>
      <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
        {items.map((item) => (
          <li key={item}>{together(item)}</li>
        ))}
      </Box>
    </Box>
  );
}
