import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useRef } from "react";
import { useSay } from "../../../words/text";

/** A button that takes a table out of a file. */
export function TableFile({ onText }: { onText: (text: string) => void }) {
  const say = useSay();
  const file = useRef<HTMLInputElement>(null);
  return (
    <Box>
      <Button size="small" variant="outlined" onClick={() => file.current?.click()}>
        {say`From a file`}
      </Button>
      <input
        ref={file}
        type="file"
        accept=".csv,.tsv,.txt,text/csv,text/plain"
        hidden
        aria-label={say`File with the table`}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) void chosen.text().then(onText);
          event.target.value = "";
        }}
      />
    </Box>
  );
}
