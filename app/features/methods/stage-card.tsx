import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { ReactNode } from "react";
import { type TitrationStage, type ComputedStage, type Reagent, resultsOf } from "~/core/method";
import { type Input, describedInput, stepsOf } from "~/core/inputs";
import { namesTex, parseRelation, symbolTex, typeset } from "~/core/relation";
import { printedUnit } from "~/core/quantity";
import { colors } from "../../theme/theme";
import { ColorRibbon } from "../../ui/color-ribbon";
import { Sheet } from "../../ui/sheet";
import { Tex } from "../../ui/tex";
import { useSay } from "../../words/text";
import { msg, type Phrase, unitText, uncapitalized, joined } from "~/core/text";

interface StageCardProps {
  stage: ComputedStage;
  number: number;
  /** What else is told of it, beneath what is done. */
  children?: ReactNode;
}

/** One stage of a method: what is read, how the result follows, what is added, how it is done. */
export function StageCard({ stage, number, children }: StageCardProps) {
  const say = useSay();
  const { title, inputs, relations, reagents = [], conditions = [], steps, cautions } = stage;
  const titration = stage.kind === "titration" ? stage : null;
  return (
    <Sheet component="section" aria-label={title} sx={{ p: 2.5, minWidth: 0 }}>
      <CardHead number={number} title={title} />
      {titration && <TitrationPart titration={titration} />}
      <Box sx={{ display: "grid", gap: 2.5, gridTemplateColumns: { xs: "minmax(0,1fr)", sm: "1fr 1fr" } }}>
        <ReadAndFollows inputs={inputs} stage={stage} relations={relations} titration={titration} />
        <Box sx={{ minWidth: 0 }}>
          {reagents.length > 0 && (
            <>
              <Typography variant="h3">{say`Add`}</Typography>
              <Reagents reagents={reagents} />
            </>
          )}
          {conditions.length > 0 && (
            <>
              <Typography variant="h3" sx={{ mt: 1 }}>
                {say`Conditions`}
              </Typography>
              <Box component="ul" sx={{ pl: 2.25, my: 0.5 }}>
                {conditions.map(({ what, celsius, minutes, strict }) => (
                  <li key={what}>
                    {what}
                    {celsius && <span> {say`${celsius[0]} to ${celsius[1]} °C`}</span>}
                    {minutes !== undefined && <span> {minutesWords(minutes)}</span>}
                    {strict && <b> {say`(strict)`}</b>}
                  </li>
                ))}
              </Box>
            </>
          )}
        </Box>
      </Box>
      <Typography variant="h3" sx={{ mt: 1.5 }}>
        {say`Do`}
      </Typography>
      <Box component="ol" sx={{ pl: 2.75, my: 0.5, "& li": { mb: 0.5 }, maxWidth: 820 }}>
        {stepsOf(steps, inputs).map((step, i) => (
          <li key={i}>{say(step)}</li>
        ))}
      </Box>
      <Box sx={{ mt: 1, pl: 1.25, borderLeft: `4px solid ${colors.amber}`, color: colors.amberDeep }}>
        {cautions.map((caution) => (
          <Box key={caution}>{caution}</Box>
        ))}
      </Box>
      {children}
    </Sheet>
  );
}

function CardHead({ number, title }: { readonly number: number; readonly title: string }) {
  return (
    <Box sx={{ display: "flex", alignItems: "center", gap: 1.25, mb: 1 }}>
      <Box
        aria-hidden="true"
        sx={{
          width: 28,
          height: 28,
          flex: "none",
          borderRadius: "50%",
          bgcolor: colors.teal,
          color: "#fff",
          display: "grid",
          placeItems: "center",
          fontWeight: 700,
        }}
      >
        {number}
      </Box>
      <Typography variant="h2">{title}</Typography>
    </Box>
  );
}

function TitrationPart({ titration }: { readonly titration: TitrationStage }) {
  const say = useSay();
  return (
    <Box sx={{ mb: 1.5 }}>
      <ColorRibbon steps={titration.ribbon} />
      <Typography sx={{ mt: 0.75 }}>
        <b>{say`Indicator`}</b>
        {say`: ${titration.indicator}. Read the`} <b>{titration.meniscus}</b> {say`of the meniscus.`}
        {titration.expectMl && (
          <>
            {" "}
            {say`Titers of about`} <span>{say`${titration.expectMl[0]} to ${titration.expectMl[1]} mL`}</span>
            .
          </>
        )}
      </Typography>
      <Typography color="textSecondary">{titration.persistence}</Typography>
    </Box>
  );
}

interface ReadAndFollowsProps {
  readonly inputs: Input[];
  readonly stage: ComputedStage;
  readonly relations: { unit: string; relation: string; title: string }[];
  readonly titration: TitrationStage | null;
}

function ReadAndFollows({ inputs, stage, relations, titration }: ReadAndFollowsProps) {
  const say = useSay();
  return (
    <Box sx={{ minWidth: 0 }}>
      <Typography variant="h3">{say`Readings`}</Typography>
      <Box component="ul" sx={{ listStyle: "none", p: 0, my: 0.5 }}>
        {inputs
          .filter((input) => input.is !== "constant")
          .map((input) => (
            <li key={input.symbol}>
              <Tex tex={symbolTex(input.symbol)} /> {say(describedInput(input))}
            </li>
          ))}
      </Box>
      <Typography variant="h3" sx={{ mt: 1.5 }}>
        {say`Calculation`}
      </Typography>
      <Box
        sx={{ overflowX: "auto" }}
        tabIndex={0}
        role="group"
        aria-label={say`How ${stage.result.name} follows`}
      >
        {[...axisLines(stage), ...relations].map(({ relation, unit }) => (
          <Box key={relation} sx={{ py: 0.35, whiteSpace: "nowrap" }}>
            <Tex tex={relationTex(relation)} />
            <Box component="span" sx={{ color: colors.inkSoft, ml: 1, fontSize: "0.9rem" }}>
              {say(unitText(printedUnit(unit)))}
            </Box>
          </Box>
        ))}
      </Box>
      <Typography variant="body2" color="textSecondary">
        {stage.kind === "calibration" &&
          say`Standards, from dilute to strong: ${stage.series.values.join(", ")}; the strongest reads about ${stage.strongest}. `}
        {say`Asked for: ${joined(resultsOf(stage).map(resultWords), "; ")}.`}
        {titration &&
          say` What must agree: ${agreement(titration.agree.on, titration.agree.per, titration.result.symbol)}.`}
      </Typography>
    </Box>
  );
}

export function Reagents({ reagents }: { reagents: readonly Reagent[] }) {
  const say = useSay();
  return (
    <Box component="ul" sx={{ pl: 2.25, my: 0.5, "& li": { mb: 0.35 } }}>
      {reagents.map(({ name, amount, exact, when }) => (
        <li key={`${name} ${when}`}>
          <b>{name}</b>, <span>{amount}</span>{" "}
          <Box component="span" sx={{ color: colors.inkSoft }}>
            ({exact ? say`exact` : say`about`}) {when}
          </Box>
        </li>
      ))}
    </Box>
  );
}

/** The amount in each standard, and the line that the absorbances follow. */
function axisLines(stage: ComputedStage): { relation: string; unit: string }[] {
  if (stage.kind !== "calibration") return [];
  const { axis, line, inputs } = stage;
  const read = inputs.find((i) => i.is === "absorbance")?.symbol ?? "A";
  const law = `${line.slope} * ${axis.symbol}`;
  const right = line.model === "origin" ? law : `${line.intercept} + ${law}`;
  return [...axis.relations, { relation: `${read} = ${right}`, unit: "1" }];
}

const minutesWords = (minutes: number) =>
  minutes >= 120 ? `${Math.round(minutes / 6) / 10} h` : `${minutes} min`;

const resultWords = ({ name, unit }: { name: string; unit: string }) =>
  unit === "1" ? uncapitalized(name) : msg`${uncapitalized(name)} in ${unitText(printedUnit(unit))}`;

function agreement(on: string, per: string | undefined, result: string): Phrase {
  if (on === result) return msg`the results`;
  return per === undefined ? msg`the titers` : msg`the titers taken per ${per} (${on})`;
}

function relationTex(source: string): string {
  const parsed = parseRelation(source);
  return parsed.ok
    ? `${symbolTex(parsed.value.symbol)} = ${typeset(parsed.value.expression, namesTex)}`
    : `\\text{${source}}`;
}
