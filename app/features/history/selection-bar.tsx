import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { Link } from "react-router";
import { colors } from "../../theme/theme";
import { useSay } from "../../words/text";

interface SelectionBarProps {
  readonly selected: readonly string[];
  readonly onClear: () => void;
}

/** More runs than one file takes. */
export const mostSelected = 1000;
/** More than one sheet shows. */
const mostOnSheet = 100;

/** What can be done with the runs that are selected. */
export function SelectionBar({ selected, onClear }: SelectionBarProps) {
  const say = useSay();
  if (selected.length === 0) return null;
  const tooMany = selected.length > mostSelected;
  return (
    <Box
      role="region"
      aria-label={say`Selected runs`}
      sx={{
        display: "flex",
        gap: 1,
        flexWrap: "wrap",
        alignItems: "center",
        bgcolor: colors.tealPale,
        borderRadius: 2,
        px: 2,
        py: 1,
        mb: 1.5,
      }}
    >
      <Typography sx={{ fontWeight: 650, mr: 1 }}>
        {selected.length === 1 ? say`1 run selected` : say`${selected.length} runs selected`}
      </Typography>
      {selected.length <= mostOnSheet && (
        <Button component={Link} to={`/history/sheet?runs=${selected.join(",")}`} variant="contained">
          {say`Class sheet`}
        </Button>
      )}
      {tooMany ? (
        <Typography>{say`Select at most ${mostSelected} runs for one file.`}</Typography>
      ) : (
        <>
          <FileOf runs={selected} format="csv" label={say`Table (CSV)`} />
          <FileOf runs={selected} format="xlsx" label={say`Spreadsheet (XLSX)`} />
          <FileOf runs={selected} format="archive" label={say`Archive (ZIP)`} />
        </>
      )}
      <Button onClick={onClear} color="secondary">
        {say`Clear selection`}
      </Button>
    </Box>
  );
}

interface FileOfProps {
  readonly runs: readonly string[];
  readonly format: string;
  readonly label: string;
}

/** Many ids are too long for an address: they are sent, and a file comes back. */
const FileOf = ({ runs, format, label }: FileOfProps) => (
  <form method="post" action={`/history/export/${format}`}>
    <input type="hidden" name="runs" value={runs.join(",")} />
    <Button type="submit" variant="outlined">
      {label}
    </Button>
  </form>
);
