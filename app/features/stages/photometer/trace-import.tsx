import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useRef, useState } from "react";
import { type ReadTrace, readTraceFile } from "~/formats/trace-file";
import { colors } from "../../../theme/theme";
import { useSay } from "../../../words/text";
import { type Phrase } from "~/core/text";

interface TraceImportProps {
  kind: "nm" | "s";
  label: string;
  onRead: (traces: readonly ReadTrace[]) => void;
}

/** Brings spectra or courses in from a file; what is wrong with it is told by line, and nothing is taken by halves. */
export function TraceImport({ kind, label, onRead }: TraceImportProps) {
  const say = useSay();
  const input = useRef<HTMLInputElement>(null);
  const [problems, setProblems] = useState<readonly { line: number; message: Phrase }[]>([]);
  const read = async (file: File) => {
    const found = readTraceFile(await file.text(), file.name, kind);
    if ("problems" in found) return setProblems(found.problems);
    setProblems([]);
    onRead(found.traces);
  };
  return (
    <Box>
      <Button size="small" variant="outlined" onClick={() => input.current?.click()}>
        {label}
      </Button>
      <input
        ref={input}
        type="file"
        accept=".csv,.tsv,.txt,.jdx,.dx,.jcamp,text/csv,text/plain"
        hidden
        aria-label={label}
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          if (chosen) void read(chosen);
          event.target.value = "";
        }}
      />
      {problems.length > 0 && (
        <Box role="alert" sx={{ color: colors.brick, my: 0.5 }}>
          {problems.map(({ line, message }) => (
            <Box key={`${line} ${say(message)}`}>{say`${line > 0 ? say`Line ${line}: ` : ""}${message}`}</Box>
          ))}
        </Box>
      )}
    </Box>
  );
}
