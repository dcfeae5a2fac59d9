import Box from "@mui/material/Box";
import { useSay } from "../../../words/text";
import { conditionColumns, reagentColumns } from "./columns";
import { freshPlausibility, plausibilityColumns } from "./plausibility-rows";
import { Rows } from "./rows";
import { Part, type StagePart, StageText } from "./stage-parts";

/** What is added, what must hold, what results can be, and what is done. */
export function WorkPart({ stage, onChange }: StagePart) {
  const say = useSay();
  return (
    <>
      <Part title={say`Reagents added`}>
        <Rows
          name={say`Reagent`}
          rows={stage.reagents}
          columnsOf={() => reagentColumns}
          fresh={{ name: "", measured: "", amount: "", exact: "", when: "", last: "" }}
          onChange={(reagents) => onChange({ reagents })}
        />
      </Part>
      <Part title={say`What must hold`}>
        <Rows
          name={say`Condition`}
          rows={stage.conditions}
          columnsOf={() => conditionColumns}
          fresh={{ what: "", of: "", from: "", to: "", minutes: "", counts: "", strict: "" }}
          onChange={(conditions) => onChange({ conditions })}
        />
      </Part>
      <Part title={say`Plausible results`} note={say`A result outside by more than its ± is not accepted.`}>
        <Rows
          name={say`Plausibility`}
          rows={stage.plausible}
          columnsOf={plausibilityColumns}
          fresh={freshPlausibility}
          onChange={(plausible) => onChange({ plausible })}
        />
      </Part>
      <Box sx={{ display: "grid", gap: 1.5, gridTemplateColumns: { xs: "1fr", sm: "1fr 1fr" } }}>
        <StageText
          stage={stage}
          onChange={onChange}
          name="steps"
          label={say`Steps`}
          help={say`one per line; "[take V_a] of the acid into a flask." says how V_a is taken, whatever a run measures it with`}
          rows={4}
        />
        <StageText
          stage={stage}
          onChange={onChange}
          name="cautions"
          label={say`Cautions`}
          help={say`one per line`}
          rows={4}
        />
      </Box>
    </>
  );
}
