import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { BuretteRules } from "~/core/measure";
import { type BurettePass, burettePasses, type SeriesLevel } from "~/core/prepare";
import { colors, fonts } from "../../theme/theme";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";
import { joined } from "~/core/text";

interface PipettingSheetProps {
  /** What is delivered, as its bottle says it. */
  stock: string;
  volumeMl: number;
  levels: readonly SeriesLevel[];
  /** Where a burette delivers the stock: how it is read; null for other glass. */
  burette: BuretteRules | null;
}

/** The dilution series as it is made at the bench, with boxes to tick; it prints on a page of its own. */
export function PipettingSheet({ stock, volumeMl, levels, burette }: PipettingSheetProps) {
  const say = useSay();
  const volumes = levels.map(({ plan }) => (plan.ok ? plan.value.deliveredMl : 0));
  const passes = burette ? burettePasses(volumes, burette) : null;
  const decimals = String(burette?.resolutionMl ?? "0.01").split(".")[1]?.length ?? 0;
  const reading = (ml: number) => ml.toFixed(decimals);
  const heads = [
    say`Flask`,
    say`Wanted, mol/L`,
    say`Stock, mL`,
    ...(passes ? [say`Burette from`, "to"] : []),
    say`Made, mol/L`,
    say`Note`,
    say`Done`,
  ];
  return (
    <Sheet
      component="section"
      aria-label={say`Pipetting sheet`}
      sx={{
        "@media print": {
          position: "absolute",
          inset: 0,
          zIndex: 2000,
          border: 0,
          minHeight: "100vh",
          bgcolor: "#ffffff",
        },
      }}
    >
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, alignItems: "baseline", mb: 1 }}>
        <Typography variant="h2" sx={{ flexGrow: 1 }}>
          {say`Pipetting sheet`}
        </Typography>
        <Button size="small" onClick={() => window.print()} sx={{ "@media print": { display: "none" } }}>
          {say`Print`}
        </Button>
      </Box>
      <Typography color="textSecondary" sx={{ mb: 1 }}>
        {say`${stock}; each flask made up to ${volumeMl} mL, inverted ten times, labeled.`}
      </Typography>
      <FlaskTable heads={heads} levels={levels} passes={passes} reading={reading} />
    </Sheet>
  );
}

interface FlaskTableProps {
  readonly heads: string[];
  readonly levels: readonly SeriesLevel[];
  readonly passes: (BurettePass | null)[] | null;
  readonly reading: (ml: number) => string;
}

function FlaskTable({ heads, levels, passes, reading }: FlaskTableProps) {
  const say = useSay();
  return (
    <Box sx={{ overflowX: "auto" }} tabIndex={0} role="group" aria-label={say`Dilution series`}>
      <Box
        component="table"
        sx={{
          width: 1,
          borderCollapse: "collapse",
          "& th": { textAlign: "left", verticalAlign: "bottom" },
          "& td, & th": { py: 0.75, pr: 2 },
        }}
      >
        <thead>
          <tr>
            {heads.map((head) => (
              <th key={head} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {levels.map(({ target, plan }, i) => {
            const pass = passes?.[i];
            return (
              <Box component="tr" key={target} sx={{ borderTop: `1px solid ${colors.line}` }}>
                <td>{i + 1}</td>
                <td style={{ fontFamily: fonts.reading }}>{target}</td>
                <td style={{ fontFamily: fonts.reading, fontWeight: 700 }}>
                  {plan.ok ? plan.value.deliveredMl : "–"}
                </td>
                {passes && (
                  <>
                    <td style={{ fontFamily: fonts.reading, whiteSpace: "nowrap" }}>
                      {pass && plan.ok ? `${pass.refill ? say`refill, ` : ""}${reading(pass.fromMl)}` : "–"}
                    </td>
                    <td style={{ fontFamily: fonts.reading }}>
                      {pass && plan.ok ? reading(pass.toMl) : "–"}
                    </td>
                  </>
                )}
                <td style={{ fontFamily: fonts.reading }}>
                  {plan.ok ? plan.value.made.toPrecision(4) : "–"}
                </td>
                <td>{say(plan.ok ? joined(plan.value.cautions, ". ") : plan.problem.message)}</td>
                <td aria-label={say`to tick`}>☐</td>
              </Box>
            );
          })}
        </tbody>
      </Box>
    </Box>
  );
}
