import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { authority, generalCautions } from "~/catalog/parts/safety";
import type { Method } from "~/core/method";
import type { ShoppingLine } from "~/core/plan";
import { colors } from "../../theme/theme";
import { EquationLine } from "../../ui/equation";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";
import { List } from "./method-page";

interface PlanBesideProps {
  readonly method: Method;
  readonly shopping: readonly ShoppingLine[];
}

/** What stands beside a plan: the reaction, what to get ready, hazards. */
export function PlanBeside({ method, shopping }: PlanBesideProps) {
  const say = useSay();
  return (
    <Box sx={{ display: "grid", gap: 2, minWidth: 0, gridTemplateColumns: "minmax(0,1fr)" }}>
      <Sheet component="section" aria-labelledby="plan-reaction">
        <Typography id="plan-reaction" variant="h2">
          {say`Reaction`}
        </Typography>
        {method.equations.map(({ name, equation }) => (
          <EquationLine key={name} source={equation} small />
        ))}
      </Sheet>
      <GetReady glassware={method.glassware} shopping={shopping} />
      <Sheet
        component="section"
        aria-labelledby="plan-hazards"
        sx={{ borderLeft: `6px solid ${colors.amber}` }}
      >
        <Typography id="plan-hazards" variant="h2" sx={{ color: colors.amberDeep }}>
          {say`Hazards`}
        </Typography>
        <List
          items={[
            ...method.hazards.filter((line) => line !== authority),
            ...generalCautions.slice(1).map((caution) => say(caution)),
          ]}
        />
        <Typography>{say`Wear: ${method.protection.join(", ").toLowerCase()}.`}</Typography>
        <Typography sx={{ mt: 0.5 }}>{say`Waste: ${method.waste.join(" ")}`}</Typography>
        <Typography sx={{ mt: 0.5, fontWeight: 650 }}>{authority}</Typography>
      </Sheet>
    </Box>
  );
}

interface GetReadyProps {
  readonly glassware: readonly string[];
  readonly shopping: readonly ShoppingLine[];
}

function GetReady({ glassware, shopping }: GetReadyProps) {
  const say = useSay();
  return (
    <Sheet component="section" aria-labelledby="shopping">
      <Typography id="shopping" variant="h2">
        {say`To get ready`}
      </Typography>
      <Box
        component="table"
        sx={{ width: 1, borderCollapse: "collapse", "& td": { py: 0.5, verticalAlign: "top" } }}
      >
        <tbody>
          {shopping.map(({ name, each, once, total }) => (
            <Box component="tr" key={name} sx={{ borderTop: `1px solid ${colors.line}` }}>
              <td>
                {name}
                <Box component="span" sx={{ display: "block", color: colors.inkSoft, fontSize: "0.88rem" }}>
                  {once ? say`${each}, once` : say`${each} a flask`}
                </Box>
              </td>
              <Box component="td" sx={{ textAlign: "right", whiteSpace: "nowrap", fontWeight: 650, pl: 1 }}>
                {total === null ? say`as needed` : say(total)}
              </Box>
            </Box>
          ))}
        </tbody>
      </Box>
      <Typography variant="h3" sx={{ mt: 1.5 }}>
        {say`Glassware, each bench`}
      </Typography>
      <List items={glassware} />
    </Sheet>
  );
}
