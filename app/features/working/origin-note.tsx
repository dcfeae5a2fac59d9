import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import type { Origin } from "~/core/stages";
import { formulaTex } from "~/core/chemistry";
import type { UsedSolution } from "~/core/run";
import { withUnit } from "~/core/quantity";
import { colors, fonts } from "../../theme/theme";
import { When } from "../../ui/when";
import { Tex } from "../../ui/tex";
import { useSay } from "../../words/text";

const noteStyle = {
  mt: 0.5,
  p: 1.5,
  borderRadius: "10px",
  bgcolor: colors.tealWash,
  border: `1px solid ${colors.line}`,
  "& table": { borderCollapse: "collapse" },
  "& td, & th": { py: 0.25, pr: 2, textAlign: "left", verticalAlign: "top" },
  "& td.number": { fontFamily: fonts.reading, whiteSpace: "nowrap" },
} as const;

interface OriginNoteProps {
  origin: Origin;
  workingHref: (stage: string) => string;
  solutions: readonly UsedSolution[];
}

export function OriginNote({ origin, workingHref, solutions }: OriginNoteProps) {
  const say = useSay();
  switch (origin.kind) {
    case "readings": {
      // A bottle brings its ± with it: nothing beside it is presumed.
      const fromShelf = origin.fields.some(({ present }) => present?.assignment);
      return (
        <Box sx={noteStyle}>
          <table>
            <ReadingRows origin={origin} fromShelf={fromShelf} solutions={solutions} />
          </table>
          {origin.causes.length > 0 && <Causes origin={origin} />}
        </Box>
      );
    }
    case "stage":
      return (
        <Box sx={noteStyle}>
          {say(origin.title)}: <span style={{ fontFamily: fonts.reading }}>{say(origin.text)}</span>{" "}
          <Box
            component={Link}
            to={workingHref(origin.stageKey)}
            sx={{ color: colors.teal, fontWeight: 650 }}
          >
            {say`Open its working`}
          </Box>
        </Box>
      );
    case "elements":
      return (
        <Box sx={noteStyle}>
          <Tex tex={`M(${formulaTex(origin.formula)})`} />
          {say`, by standard atomic weights (IUPAC, abridged 2021)`}
          <table>
            <tbody>
              {origin.elements.map(({ element, count, weight, plusMinus }) => (
                <tr key={element}>
                  <td>
                    {count} {element}
                  </td>
                  <td className="number">
                    {count} × ({weight} ± {plusMinus})
                  </td>
                  <td className="number">{say`= ${(count * weight).toFixed(3)} g/mol`}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Box>
      );
    case "equation":
      return <Box sx={noteStyle}>{say(origin.text)}</Box>;
  }
}

function Causes({ origin }: { readonly origin: Extract<Origin, { kind: "readings" }> }) {
  const say = useSay();
  return (
    <>
      <Typography variant="body2" sx={{ fontWeight: 700, mt: 1 }}>
        {say`Its standard uncertainty, by source`}
      </Typography>
      <table>
        <tbody>
          {origin.causes.map(({ label, contribution, unit }) => (
            <tr key={say(label)}>
              <td>{say(label)}</td>
              <td className="number">{say(withUnit(contribution, unit))}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

interface ReadingRowsProps {
  readonly origin: Extract<Origin, { kind: "readings" }>;
  readonly fromShelf: boolean;
  readonly solutions: readonly UsedSolution[];
}

function ReadingRows({ origin, fromShelf, solutions }: ReadingRowsProps) {
  const say = useSay();
  return (
    <tbody>
      {origin.fields.flatMap(({ field, history, present }) =>
        history.length === 0
          ? field.hidden || fromShelf
            ? []
            : [
                <tr key={field.kind}>
                  <td>{say(field.label)}</td>
                  <td>{say`presumed, nothing was typed`}</td>
                  <td />
                </tr>,
              ]
          : history.map((o) => (
              <tr key={o.id}>
                <td>{say(field.label)}</td>
                <td className="number">
                  {o.id === present?.id ? say(withUnit(o.text, o.unit)) : <s>{o.text || say`taken back`}</s>}
                </td>
                <td>
                  <When at={o.at} as="time" />
                  {o.person && `, ${o.person}`}
                  {o.reason && `: ${o.reason}`}
                  <Bottle used={solutions.find((s) => s.assignmentId === o.assignment)} />
                </td>
              </tr>
            )),
      )}
    </tbody>
  );
}

/** The bottle that a value came from: its page leads on to the run that fixed it. */
function Bottle({ used }: { used: UsedSolution | undefined }) {
  const say = useSay();
  if (!used) return null;
  return (
    <>
      {say`, from`}{" "}
      <Link to={`/shelf/${used.solutionId}`}>
        {used.code} {used.name}
      </Link>
    </>
  );
}
