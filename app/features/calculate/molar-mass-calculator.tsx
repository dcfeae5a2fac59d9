import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { type ElementShare, elementShares, molarMass, parseFormula, prettyFormula } from "~/core/chemistry";
import { type Quantity, standardUncertainty } from "~/core/quantity";
import { problemText } from "~/core/result";
import { colors, fonts } from "../../theme/theme";
import { TextInput } from "../../ui/text-input";
import { Answer, Calculator, useTexts } from "./board";
import { useSay } from "../../words/text";

/** Molar mass of any formula, element by element. */
export function MolarMassCalculator() {
  const say = useSay();
  const { texts, words } = useTexts({ formula: "(NH4)2Fe(SO4)2·6H2O" });
  const formula = (texts.formula ?? "").trim();
  const parsed = parseFormula(formula);
  const problem = formula !== "" && !parsed.ok ? problemText(parsed.problem) : undefined;
  const shares = parsed.ok ? elementShares(formula) : [];
  const m = parsed.ok ? molarMass(formula) : null;
  return (
    <Calculator
      fields={
        <TextInput
          label={say`Formula`}
          field={words("formula", problem)}
          help={say`brackets, and hydrates with a dot: CuSO4·5H2O`}
          autoFocus
        />
      }
    >
      {m ? (
        <>
          <Answer>{say`${m.value.toFixed(3)} g/mol`}</Answer>
          <Typography color="textSecondary" sx={{ mb: 1 }}>
            {say`${prettyFormula(formula)}, by the standard atomic weights of 2021; u = ${standardUncertainty(m).toPrecision(2)} g/mol`}
          </Typography>
          <ElementTable shares={shares} m={m} />
        </>
      ) : (
        <Typography color="textSecondary">{say`Type a formula.`}</Typography>
      )}
    </Calculator>
  );
}

function ElementTable({ shares, m }: { readonly shares: ElementShare[]; readonly m: Quantity }) {
  const say = useSay();
  return (
    <Box sx={{ overflowX: "auto" }} tabIndex={0} role="group" aria-label={say`Element by element`}>
      <Box
        component="table"
        sx={{
          borderCollapse: "collapse",
          fontFamily: fonts.reading,
          "& td, & th": { py: 0.4, px: 1.25, textAlign: "right" },
        }}
      >
        <thead>
          <tr>
            <th>{say`element`}</th>
            <th>{say`atoms`}</th>
            <th>{say`g/mol`}</th>
            <th>{say`together`}</th>
            <th>{say`% of it`}</th>
          </tr>
        </thead>
        <tbody>
          {shares.map(({ element, count, weight }) => (
            <Box component="tr" key={element} sx={{ borderTop: `1px solid ${colors.line}` }}>
              <td>{element}</td>
              <td>{count}</td>
              <td>{weight}</td>
              <td>{(count * weight).toFixed(3)}</td>
              <td>{((100 * count * weight) / m.value).toFixed(2)}</td>
            </Box>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}
