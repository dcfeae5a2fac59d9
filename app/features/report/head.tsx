import { Letterhead } from "./letterhead";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ReportDocument } from "~/formats/report/document";
import { colors, fonts } from "../../theme/theme";
import { EquationLine } from "../../ui/equation";
import { When } from "../../ui/when";
import { useSay } from "../../words/text";
import { Table } from "./table";
import { factsOf, howKnown } from "./words";

interface HeadProps {
  readonly report: ReportDocument;
  readonly letterhead: string;
}

/** Whose report it is; what, who, when, and the result that the run was for. */
export function Head({ report, letterhead }: HeadProps) {
  const say = useSay();
  const { main } = report;
  return (
    <Box>
      <Letterhead text={letterhead} />
      <Typography variant="h1" component="h2" sx={{ fontSize: "1.7rem" }}>
        {report.title}
      </Typography>
      <Box component="dl" sx={{ m: 0, mt: 1, display: "flex", flexWrap: "wrap", columnGap: 4, rowGap: 0.5 }}>
        {factsOf(report).map(({ name, text, at }, i) => (
          <Box key={i}>
            <Typography component="dt" variant="caption" color="textSecondary">
              {say(name)}
            </Typography>
            <Box component="dd" sx={{ m: 0 }}>
              {at === null ? say(text) : <When at={at} as="datedTime" />}
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
            <td>{say(howKnown[bottle.how])}</td>
            <td>
              <When at={bottle.at} as="dated" />
            </td>
          </tr>
        ))}
      </Table>
    </Box>
  );
}
