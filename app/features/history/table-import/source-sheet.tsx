import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { encodings } from "~/formats/table/encodings";
import { fonts } from "../../../theme/theme";
import { FileButton } from "../../../ui/file-button";
import { Sheet } from "../../../ui/sheet";
import { useSay } from "../../../words/text";
import type { Table } from "./use-table";

/** Where the table comes from: pasted, or a file. */
export function SourceSheet({ table }: { readonly table: Table }) {
  const { source, asksEncoding, progress, open, edit } = table;
  const say = useSay();
  const busy = progress !== null;
  return (
    <Sheet component="section" aria-labelledby="table-source" sx={{ display: "grid", gap: 1.5 }}>
      <Typography id="table-source" variant="h2">
        {say`1. The table`}
      </Typography>
      <TextField
        multiline
        rows={4}
        label={say`Paste the table here`}
        value={source.file ? "" : source.text}
        onChange={(event) => edit(event.target.value)}
        slotProps={{
          // The usual one measures its text whenever the page changes, which takes half a second with a large table in it.
          input: { inputComponent: "textarea" },
          htmlInput: { style: { fontFamily: fonts.reading, fontSize: "0.9rem" } },
        }}
      />
      <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", flexWrap: "wrap" }}>
        <Button
          variant="contained"
          disabled={busy || source.text.trim() === ""}
          onClick={() => void open({ file: null, text: source.text, encoding: "" })}
        >
          {say`Use the pasted table`}
        </Button>
        <FileButton
          variant="outlined"
          disabled={busy}
          label={say`Table to import`}
          accept=".csv,.tsv,.txt,.xlsx"
          onFile={(file) => void open({ file, text: "", encoding: "" })}
        >
          {say`Choose a CSV or XLSX file …`}
        </FileButton>
        {source.file && <Typography color="textSecondary">{source.file.name}</Typography>}
        {source.file && asksEncoding && <EncodingChoice table={table} />}
      </Box>
    </Sheet>
  );
}

/** In which encoding a text is that is not in UTF-8. */
function EncodingChoice({ table: { source, open } }: { readonly table: Table }) {
  const say = useSay();
  return (
    <TextField
      select
      size="small"
      label={say`Encoding`}
      value={source.encoding}
      sx={{ minWidth: 180 }}
      onChange={(event) => void open({ ...source, encoding: event.target.value })}
    >
      {encodings.map((encoding) => (
        <MenuItem key={encoding} value={encoding}>
          {encoding}
        </MenuItem>
      ))}
    </TextField>
  );
}
