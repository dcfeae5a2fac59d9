import Autocomplete from "@mui/material/Autocomplete";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { Mapping } from "~/formats/table/mapping";
import type { OpenedTable, TableStage } from "~/protocol/table-import";
import { Sheet } from "../../../ui/sheet";
import { useSay } from "../../../words/text";
import { CellChoices, FixedValues } from "./cell-choices";
import { ColumnTable } from "./column-table";
import type { Table } from "./use-table";

interface ColumnsSheetProps {
  readonly stages: readonly TableStage[];
  readonly opened: OpenedTable;
  readonly mapping: Mapping;
  readonly table: Table;
}

/** What the table means: of which method its rows are trials, and what each column stands for. */
export function ColumnsSheet({ stages, opened, mapping, table }: ColumnsSheetProps) {
  const say = useSay();
  const chosen =
    stages.find((one) => one.methodId === mapping.methodId && one.stageKey === mapping.stageKey) ?? null;
  return (
    <Sheet component="section" aria-labelledby="table-columns" sx={{ display: "grid", gap: 2, minWidth: 0 }}>
      <Typography id="table-columns" variant="h2">
        {say`2. What its columns are`}
      </Typography>
      <Autocomplete
        options={stages}
        value={chosen}
        getOptionLabel={({ method, stage }) => `${method}: ${stage}`}
        isOptionEqualToValue={(a, b) => a.methodId === b.methodId && a.stageKey === b.stageKey}
        getOptionKey={({ methodId, stageKey }) => `${methodId}/${stageKey}`}
        onChange={(_event, next) => next && void table.choose(next.methodId, next.stageKey)}
        renderInput={(params) => (
          <TextField
            {...params}
            label={say`Each row is a trial or a flask of`}
            placeholder={say`method and stage`}
          />
        )}
      />
      {table.targets.length > 0 && (
        <>
          {table.targets.some(({ key }) => key === "what") && (
            <Typography sx={{ maxWidth: "68ch" }}>
              {say`The standards and blanks of a day go into the run of each sample of that day. Rows named “blank” or “standard”, or with an amount of stock, are taken as such; all other rows are samples.`}
            </Typography>
          )}
          <ColumnTable opened={opened} mapping={mapping} targets={table.targets} change={table.change} />
          <CellChoices opened={opened} mapping={mapping} change={table.change} />
          <FixedValues mapping={mapping} targets={table.targets} change={table.change} />
        </>
      )}
    </Sheet>
  );
}
