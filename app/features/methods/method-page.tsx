import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import type { Method } from "~/core/method";
import { authority, generalCautions } from "~/catalog/parts/safety";
import { counted, type Phrase } from "~/core/text";
import { colors } from "../../theme/theme";
import { ForInstructors } from "../../access/viewer";
import { EquationLine } from "../../ui/equation";
import { Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { RemoveMethod } from "./remove-method";
import { StageCard } from "./stage-card";
import { StageIndicator } from "./stage-indicator";
import { useSay } from "../../words/text";

export interface OtherWay {
  readonly id: string;
  readonly title: string;
  readonly differs: Phrase;
}

/** The method that a run is begun by under an alias, and how the alias differs from it. */
export interface Begins {
  readonly id: string;
  readonly title: string;
  readonly differs: string;
}

interface MethodPageProps {
  method: Method;
  /** Null for a method that stands for itself. */
  begins: Begins | null;
  own: boolean;
  /** Other ways of doing the same, by schools. */
  otherWays: readonly OtherWay[];
  versions: readonly number[];
  /** How many runs follow it, in any version. */
  runs: number;
  /** True where it is offered no more. */
  retired: boolean;
  /** A drop of the burette of the house, mL. */
  dropMl: number;
}

/** One method, to read: reaction, stages, what is needed, hazards. */
export function MethodPage(props: MethodPageProps) {
  const { method, begins, own, otherWays, versions, runs, retired, dropMl } = props;
  const say = useSay();
  const { id, title, purpose, version } = method;
  const newest = Math.max(...versions);
  return (
    <Page
      title={title}
      note={purpose}
      actions={<Actions {...{ id, version, own, retired }} named={begins !== null} />}
    >
      {retired && <RetiredNote runs={runs} />}
      {begins && (
        <Typography sx={{ mb: 2, maxWidth: 820 }}>
          {say`A run of`} <Link to={`/methods/${begins.id}`}>{begins.title}</Link>
          {say`: ${begins.differs}. In the run it can be changed back.`}
        </Typography>
      )}
      {version !== newest && (
        <Sheet sx={{ mb: 2, borderLeft: `6px solid ${colors.amber}` }}>
          {say`This is version ${version}.`}{" "}
          <Link to={`/methods/${id}`}>{say`The newest is version ${newest}.`}</Link>
        </Sheet>
      )}
      <Box
        sx={{
          display: "grid",
          gap: 2,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0,1fr)", md: "minmax(0,1fr) 330px" },
        }}
      >
        <Procedure method={method} dropMl={dropMl} />
        <Box sx={{ display: "grid", gap: 2 }}>
          <Hazards method={method} />
          <Part title={say`Wear`} items={method.protection} />
          <Part title={say`Glassware and instruments`} items={method.glassware} />
          <Part title={say`Waste`} items={method.waste} />
          {otherWays.length > 0 && <OtherWays otherWays={otherWays} />}
          <Versions own={own} version={version} versions={versions} id={id} />
          {own && (
            <ForInstructors>
              <RemoveMethod id={id} runs={runs} retired={retired} />
            </ForInstructors>
          )}
        </Box>
      </Box>
    </Page>
  );
}

interface ActionsProps {
  readonly id: string;
  readonly version: number;
  readonly own: boolean;
  readonly retired: boolean;
  /** True for an alias, whose version is that of its method. */
  readonly named: boolean;
}

/** What can be done with a method. */
function Actions({ id, version, own, retired, named }: ActionsProps) {
  const say = useSay();
  return (
    <>
      {!retired && (
        <Button component={Link} to={`/?start=${id}`} variant="contained">
          {say`Start a run`}
        </Button>
      )}
      <Button component={Link} to={`/methods/${id}/plan`} variant="outlined">
        {say`Plan`}
      </Button>
      <Button component={Link} to={`/methods/${id}/sheet`} variant="outlined">
        {say`Data sheet`}
      </Button>
      <ForInstructors>
        <Button component={Link} to={`/methods/${id}/edit`} variant="outlined">
          {own ? say`Edit` : say`Copy and edit`}
        </Button>
      </ForInstructors>
      <Button
        component="a"
        href={named ? `/methods/${id}/export` : `/methods/${id}/export?version=${version}`}
        download
        variant="outlined"
      >
        {say`Export`}
      </Button>
    </>
  );
}

function Procedure({ method, dropMl }: Pick<MethodPageProps, "method" | "dropMl">) {
  const say = useSay();
  const { equations, stages } = method;
  return (
    <Box sx={{ display: "grid", gap: 2, minWidth: 0, gridTemplateColumns: "minmax(0,1fr)" }}>
      <Sheet component="section" aria-label={say`Reaction`} sx={{ p: 2.5 }}>
        {equations.map(({ name, equation }) => (
          <Box key={name} sx={{ "& + &": { mt: 1.25 } }}>
            <Typography variant="h3">{name.charAt(0).toUpperCase() + name.slice(1)}</Typography>
            <EquationLine source={equation} large />
          </Box>
        ))}
      </Sheet>
      {stages.map((stage, i) => (
        <StageCard key={stage.key} stage={stage} number={i + 1}>
          <StageIndicator method={method} stageKey={stage.key} dropMl={dropMl} />
        </StageCard>
      ))}
    </Box>
  );
}

function Hazards({ method }: { readonly method: Method }) {
  const say = useSay();
  return (
    <Sheet component="section" aria-labelledby="hazards" sx={{ borderLeft: `6px solid ${colors.amber}` }}>
      <Typography id="hazards" variant="h2" sx={{ color: colors.amberDeep }}>
        {say`Hazards`}
      </Typography>
      <List items={method.hazards.filter((line) => line !== authority)} />
      <Typography variant="h3" sx={{ mt: 1 }}>
        {say`At every bench`}
      </Typography>
      <List items={generalCautions.map((caution) => say(caution))} />
      <Typography sx={{ mt: 1, fontWeight: 650 }}>{authority}</Typography>
    </Sheet>
  );
}

function OtherWays({ otherWays }: { readonly otherWays: readonly OtherWay[] }) {
  const say = useSay();
  return (
    <Sheet component="section" aria-labelledby="ways">
      <Typography id="ways" variant="h2">
        {say`Schools differ`}
      </Typography>
      {otherWays.map((way) => (
        <Typography key={way.id} sx={{ mt: 0.75 }}>
          <Link to={`/methods/${way.id}`}>{way.title}</Link>: {say(way.differs)}.
        </Typography>
      ))}
    </Sheet>
  );
}

interface VersionsProps {
  readonly own: boolean;
  readonly version: number;
  readonly versions: readonly number[];
  readonly id: string;
}

function Versions({ own, version, versions, id }: VersionsProps) {
  const say = useSay();
  return (
    <Typography variant="body2" color="textSecondary">
      {say`${own ? say`Your own method` : say`From the library`}, version ${version}. Runs keep the version with which they began`}
      {versions.length > 1 && (
        <>
          {" "}
          {say`(all:`}{" "}
          {versions.map((v, i) => (
            <span key={v}>
              {i > 0 && ", "}
              {v === version ? v : <Link to={`/methods/${id}?version=${v}`}>{v}</Link>}
            </span>
          ))}
          )
        </>
      )}
      .
    </Typography>
  );
}

function RetiredNote({ runs }: { readonly runs: number }) {
  const say = useSay();
  return (
    <Sheet sx={{ mb: 2, borderLeft: `6px solid ${colors.amber}` }}>
      {say`Retired: it is not offered for new runs. The ${counted(runs, "run")} that ${runs === 1 ? say`follows` : say`follow`} it ${runs === 1 ? say`keeps` : say`keep`} it.`}
    </Sheet>
  );
}

function Part({ title, items }: { title: string; items: readonly string[] }) {
  return (
    <Sheet component="section" aria-label={title}>
      <Typography variant="h2">{title}</Typography>
      <List items={items} />
    </Sheet>
  );
}

export function List({ items }: { items: readonly string[] }) {
  return (
    <Box component="ul" sx={{ pl: 2.25, my: 0.5, "& li": { mb: 0.35 } }}>
      {items.map((item) => (
        <li key={item}>{item}</li>
      ))}
    </Box>
  );
}
