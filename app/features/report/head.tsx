import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ReportDocument } from "~/formats/report/document";
import { colors, fonts } from "../../theme/theme";
import { EquationLine } from "../../ui/equation";
import { When } from "../../ui/when";
import { useSay } from "../../words/text";
import { Table } from "./table";

/** What, who, when, and the result that the run was for. */
export function Head({ report }: { readonly report: ReportDocument }) {
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

export function MethodPart({ report: { method } }: { readonly report: ReportDocument }) {
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
export function Bottles({ report: { bottles } }: { readonly report: ReportDocument }) {
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
            <td style={{ fontFamily: fonts.reading }}>{say(bottle.known)}</td>
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
