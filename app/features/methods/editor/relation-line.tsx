import Box from "@mui/material/Box";
import { problemText } from "~/core/result";
import { namesTex, parseRelation, symbolTex, typeset } from "~/core/relation";
import { Tex } from "../../../ui/tex";
import { msg, type Phrase, inEnglish } from "~/core/text";

/** What is wrong with one line by itself; what the whole check says of it stands below all lines. */
export function relationProblem(source: string, whole: Phrase | null): Phrase | null {
  if (source.trim() === "") return msg`Type a relation: result = expression`;
  const read = parseRelation(source);
  if (!read.ok) return problemText(read.problem);
  return whole !== null && inEnglish(whole).includes(`"${source.trim()}"`)
    ? msg`Check this line: see below`
    : null;
}

/** A relation as it will be set in type. */
export function TypesetRelation({ source }: { source: string }) {
  const read = parseRelation(source);
  if (!read.ok) return null;
  return (
    <Box tabIndex={0} role="group" aria-label={source} sx={{ overflowX: "auto", py: 0.5 }}>
      <Tex tex={`${symbolTex(read.value.symbol)} = ${typeset(read.value.expression, namesTex)}`} />
    </Box>
  );
}
