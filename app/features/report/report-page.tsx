import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import GlobalStyles from "@mui/material/GlobalStyles";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import { useState } from "react";
import { Link } from "react-router";
import type { ReportDocument } from "~/formats/report/document";
import { fonts } from "../../theme/theme";
import { noPrint, Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";
import { Ends, type ReportProof } from "./ends";
import { Files } from "./files";
import { Bottles, Head, MethodPart } from "./head";
import { ReportStageView } from "./report-stage";
import { stacked } from "./stacked";

interface ReportPageProps {
  readonly report: ReportDocument;
  readonly proof: ReportProof;
  /** Whose report it is; empty where the lab has no header. */
  readonly letterhead: string;
}

const papers = ["A4", "Letter"] as const;
type Paper = (typeof papers)[number];

/** Margins and page numbers, which only a rule of the page itself can say. */
const pageRule = (paper: Paper, title: string): string =>
  `@page { size: ${paper === "A4" ? "A4" : "letter"}; margin: 16mm 16mm 18mm;
    @bottom-left { content: ${JSON.stringify(title)}; font: 8pt ${fonts.text}; color: #56625f; }
    @bottom-right { content: counter(page) " / " counter(pages); font: 8pt ${fonts.text}; color: #56625f; } }`;

/** The report of a run, to read, to print, and beside it the files in which the run leaves the lab. */
export function ReportPage({ report, proof, letterhead }: ReportPageProps) {
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
        <Files report={report} />
        <Sheet
          component="article"
          aria-label={say`Report of ${report.title}`}
          sx={{
            ...stacked(3),
            p: { xs: 2, sm: 4 },
            "@media print": { border: 0, p: 0, fontSize: "10pt" },
          }}
        >
          <Head report={report} letterhead={letterhead} />
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
      <Button
        component="a"
        href={`/runs/${report.id}/report/pdf?paper=${paper}&working=${full ? "full" : "short"}`}
        download
        variant="outlined"
      >
        {say`Save as PDF`}
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
