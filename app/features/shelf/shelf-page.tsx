import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import { type ConcentrationText, concentrationOf, howWords } from "~/protocol/concentration";
import { type AssignmentView, type SolutionState, type SolutionView } from "~/protocol/shelf";
import { prettyFormula } from "~/core/chemistry";
import { colors, fonts } from "../../theme/theme";
import { Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { When } from "../../ui/when";
import { useSay } from "../../words/text";
import { unitText } from "~/core/text";

interface ShelfPageProps {
  bottles: readonly SolutionView[];
  usedUp: boolean;
}

/** All bottles and jars: what they hold, how that is known, and what is due. */
export function ShelfPage({ bottles, usedUp }: ShelfPageProps) {
  const say = useSay();
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const toggle = (id: string) =>
    setChosen((before) => (before.includes(id) ? before.filter((x) => x !== id) : [...before, id]));
  const due = bottles.filter((b) => b.state === "past its date");
  const groups = [
    { title: say`Solutions`, lines: bottles.filter((b) => b.form === "solution") },
    { title: say`Solids`, lines: bottles.filter((b) => b.form === "solid") },
  ];
  return (
    <Page
      title={say`Shelf`}
      note={
        due.length === 0
          ? say`Bottles, how their concentrations are known, and what they rest on.`
          : say`${due.length === 1 ? say`One bottle is` : say`${due.length} bottles are`} past the date: restandardize before use.`
      }
      actions={
        <>
          <Button component={Link} to="/shelf/new" variant="contained">
            {say`New bottle`}
          </Button>
          <Button
            component={Link}
            to={`/shelf/labels${chosen.length > 0 ? `?ids=${chosen.join(",")}` : ""}`}
            variant="outlined"
          >
            {chosen.length > 0 ? say`Labels (${chosen.length})` : say`Labels`}
          </Button>
          <Button component={Link} to="/shelf/lineage" variant="outlined">
            {say`Lineage`}
          </Button>
        </>
      }
    >
      {bottles.length === 0 && <EmptyShelf />}
      {groups.map(({ title, lines }) =>
        lines.length === 0 ? null : (
          <Sheet key={title} component="section" aria-label={title} sx={{ p: 0, mb: 2 }}>
            <Typography variant="h2" sx={{ px: 2, pt: 1.5, pb: 1 }}>
              {title}
            </Typography>
            {lines.map((bottle) => (
              <Line key={bottle.id} bottle={bottle} chosen={chosen.includes(bottle.id)} onToggle={toggle} />
            ))}
          </Sheet>
        ),
      )}
      <Button component={Link} to={usedUp ? "/shelf" : "/shelf?used=1"} size="small">
        {usedUp ? say`Hide used-up bottles` : say`Show used-up bottles`}
      </Button>
    </Page>
  );
}

function EmptyShelf() {
  const say = useSay();
  return (
    <Sheet sx={{ p: 4, textAlign: "center" }}>
      <Typography variant="h2">{say`The shelf is empty`}</Typography>
      <Typography color="textSecondary">
        {say`Put a primary standard here first, then make a solution from it; or finish a standardization.`}
      </Typography>
    </Sheet>
  );
}

interface LineProps {
  bottle: SolutionView;
  chosen: boolean;
  onToggle: (id: string) => void;
}

function Line({ bottle, chosen, onToggle }: LineProps) {
  const say = useSay();
  const { id, code, name, formula, current, state, amountLeft, amountUnit, restandardizeBy } = bottle;
  const shown = current && concentrationOf(current);
  return (
    <Box
      sx={{
        display: "grid",
        columnGap: 1.5,
        alignItems: "center",
        borderTop: `1px solid ${colors.line}`,
        px: 1,
        py: 0.75,
        gridTemplateColumns: {
          xs: "44px minmax(0,1fr)",
          md: "44px minmax(0,1.3fr) minmax(0,1fr) 190px 110px",
        },
        borderLeft: state === "past its date" ? `6px solid ${colors.amber}` : "6px solid transparent",
        opacity: state === "used up" ? 0.75 : 1,
      }}
    >
      <Checkbox
        checked={chosen}
        onChange={() => onToggle(id)}
        slotProps={{ input: { "aria-label": say`Label for ${code} ${name}` } }}
      />
      <Box sx={{ minWidth: 0 }}>
        <Box
          component={Link}
          to={`/shelf/${id}`}
          sx={{ color: colors.teal, fontWeight: 650, textDecoration: "none" }}
        >
          {name}
        </Box>
        <Box sx={{ color: colors.inkSoft, fontSize: "0.9rem" }}>
          <span style={{ fontFamily: fonts.reading }}>{code}</span> · {prettyFormula(formula)}
        </Box>
      </Box>
      <KnownAs shown={shown} current={current} />
      <Due state={state} restandardizeBy={restandardizeBy} />
      <Box
        sx={{ gridColumn: { xs: "2", md: "auto" }, textAlign: { md: "right" }, fontFamily: fonts.reading }}
      >
        {amountLeft === null
          ? ""
          : say`${Number(Number(amountLeft).toPrecision(4))} ${unitText(amountUnit)} left`}
      </Box>
    </Box>
  );
}

function KnownAs({
  shown,
  current,
}: {
  readonly shown: ConcentrationText | null;
  readonly current: AssignmentView | null;
}) {
  const say = useSay();
  return (
    <Box sx={{ gridColumn: { xs: "2", md: "auto" } }}>
      <Box sx={{ fontFamily: fonts.reading, fontSize: "1.12rem" }}>
        {shown ? (
          <>
            {shown.value}
            {shown.plusMinus && <span style={{ fontSize: "0.92rem" }}> ± {shown.plusMinus}</span>}
            <span style={{ fontSize: "0.92rem" }}> {say(unitText(shown.unit))}</span>
          </>
        ) : (
          say`not known yet`
        )}
      </Box>
      {current && (
        <Box sx={{ color: colors.inkSoft, fontSize: "0.9rem" }}>
          {say(howWords[current.how])}, <When at={current.at} />
        </Box>
      )}
    </Box>
  );
}

function Due({
  state,
  restandardizeBy,
}: {
  readonly state: SolutionState;
  readonly restandardizeBy: string | null;
}) {
  const say = useSay();
  return (
    <Box
      sx={{
        gridColumn: { xs: "2", md: "auto" },
        color: state === "past its date" ? colors.amberDeep : colors.inkSoft,
        fontWeight: state === "past its date" ? 700 : 400,
      }}
    >
      {state === "used up" ? (
        say`used up`
      ) : restandardizeBy ? (
        <>
          {state === "past its date" ? say`overdue since ` : say`restandardize by `}
          <When at={`${restandardizeBy}T12:00:00`} />
        </>
      ) : (
        ""
      )}
    </Box>
  );
}
