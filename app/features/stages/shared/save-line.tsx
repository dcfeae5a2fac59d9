import Button from "@mui/material/Button";
import { lineCsv } from "~/formats/lines/csv";
import { lineJcamp } from "~/formats/lines/jcamp";
import type { PointLine } from "~/formats/lines/line";
import { useSay } from "../../../words/text";

function saveText(text: string, type: string, fileName: string) {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = fileName;
  link.click();
  URL.revokeObjectURL(url);
}

/** Saves a spectrum, a course or a curve as a file, with the digits with which it came. */
export function SaveLine({ line }: { readonly line: PointLine }) {
  const say = useSay();
  const name = line.name.replace(/[^\p{L}\p{N} ._-]+/gu, " ").trim() || line.is;
  return (
    <>
      <Button size="small" onClick={() => saveText(lineCsv(line), "text/csv", `${name}.csv`)}>
        {say`Save as CSV`}
      </Button>
      <Button size="small" onClick={() => saveText(lineJcamp(line), "chemical/x-jcamp-dx", `${name}.jdx`)}>
        {say`Save as JCAMP-DX`}
      </Button>
    </>
  );
}
