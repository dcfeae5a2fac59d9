import Typography from "@mui/material/Typography";
import type { Phrase } from "~/core/text";
import { useSay } from "../../../words/text";
import { inputColumns, relationColumns, resultColumns } from "./columns";
import { glassProblem, resultProblem } from "./hints";
import { ownParts } from "./kinds/parts";
import { relationProblem, TypesetRelation } from "./relation-line";
import { computedBy } from "./rename";
import { Rows } from "./rows";
import { Part, type StagePart } from "./stage-parts";

interface CalculationPartProps extends StagePart {
  /** Stages before this one, whose results it can build on. */
  readonly earlier: readonly { readonly value: string; readonly label: string }[];
  /** What the check of the method found in this stage. */
  readonly problem: Phrase | null;
  /** A letter is another one from now on, wherever it stands. */
  readonly onRename: (before: string, after: string) => void;
}

/** What is read, how results follow, and which are asked for. */
export function CalculationPart({ stage, earlier, problem, onChange, onRename }: CalculationPartProps) {
  const say = useSay();
  const { Readings } = ownParts[stage.kind];
  return (
    <>
      <Part title={say`Readings, in order`}>
        <Rows
          name={say`Reading`}
          rows={stage.inputs}
          columnsOf={(row) => inputColumns(row, earlier)}
          fresh={{ is: "pipette", symbol: "", label: "", of: "", per: "trial", value: "25.00" }}
          onChange={(inputs) => onChange({ inputs })}
          problemOf={glassProblem}
          onLeave={({ key, before, after }) => key === "symbol" && onRename(before.trim(), after.trim())}
        />
      </Part>
      {Readings && <Readings stage={stage} onChange={onChange} />}
      <Part
        title={say`Calculation`}
        note={say`Letters of what is read; M(NaOH), ratio(HCl, NaOH); units in brackets.`}
      >
        <Rows
          name={say`Relation`}
          rows={stage.relations}
          columnsOf={() => relationColumns}
          fresh={{ relation: "", title: "", unit: "mol/L" }}
          onChange={(relations) => onChange({ relations })}
          onLeave={({ key, before, after }) =>
            key === "relation" && onRename(computedBy(before), computedBy(after))
          }
          problemOf={(row) => relationProblem(row.relation ?? "", problem)}
          below={(row) => <TypesetRelation source={row.relation ?? ""} />}
        />
        {problem && (
          <Typography role="alert" sx={{ color: "error.main", mt: 1 }}>
            {say(problem)}.
          </Typography>
        )}
      </Part>
      <Part title={say`What is asked for`} note={say`The first is the stage's result.`}>
        <Rows
          name={say`Result`}
          rows={stage.results}
          columnsOf={() => resultColumns}
          fresh={{ symbol: "", name: "", unit: "mol/L" }}
          onChange={(results) => onChange({ results })}
          problemOf={(row) => resultProblem(stage, row)}
        />
      </Part>
    </>
  );
}
