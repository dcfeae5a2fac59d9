import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMemo, useState } from "react";
import { Link } from "react-router";
import { prettyEquation } from "~/core/chemistry";
import { colors } from "../../theme/theme";
import { ForInstructors } from "../../access/viewer";
import { Page } from "../../ui/page";
import { Sheet } from "../../ui/sheet";
import { familyTitles } from "./families";
import { ImportButton } from "./import-button";
import { useSay } from "../../words/text";

export interface MethodLine {
  readonly id: string;
  readonly title: string;
  readonly purpose: string;
  readonly family: string;
  readonly equation: string;
  readonly variantOf: string | null;
  readonly differs: string | null;
  /** True for what was made here, not shipped. */
  readonly own: boolean;
  /** True where it is offered no more. */
  readonly retired: boolean;
  /** All its words in small letters. */
  readonly words: string;
}

/** The library by family; what is typed narrows it at each key press. */
export function MethodsPage({ methods }: { methods: readonly MethodLine[] }) {
  const say = useSay();
  const [query, setQuery] = useState("");
  const found = useMemo(() => {
    const words = query.toLowerCase().split(/\s+/).filter(Boolean);
    return methods.filter((m) => words.every((word) => m.words.includes(word)));
  }, [methods, query]);
  return (
    <Page
      title={say`Methods`}
      note={say`Every procedure with its reaction, steps, cautions and plan.`}
      actions={
        <ForInstructors>
          <ImportButton />
          <Button component={Link} to="/methods/new" variant="outlined">
            {say`Make a method`}
          </Button>
        </ForInstructors>
      }
    >
      <TextField
        label={say`Search`}
        type="search"
        value={query}
        onChange={(event) => setQuery(event.target.value)}
        helperText={
          query === ""
            ? say`${methods.length} methods; search by name, substance or indicator`
            : say`${found.length} of ${methods.length}`
        }
        sx={{ mb: 2, maxWidth: 520 }}
      />
      <Box
        sx={{
          display: "grid",
          gap: 2,
          alignItems: "start",
          gridTemplateColumns: { xs: "minmax(0,1fr)", md: "1fr 1fr", lg: "1fr 1fr 1fr" },
        }}
      >
        {Object.entries(familyTitles).map(([family, title]) => {
          const lines = found.filter((m) => m.family === family);
          if (lines.length === 0) return null;
          const heads = lines.filter((m) => !lines.some((other) => other.id === m.variantOf));
          return <FamilySheet key={family} family={family} title={say(title)} lines={lines} heads={heads} />;
        })}
      </Box>
      {found.length === 0 && (
        <Sheet sx={{ p: 4, textAlign: "center" }}>
          <Typography variant="h2">{say`Nothing found for “${query}”`}</Typography>
          <Typography color="textSecondary">
            {say`Search for a substance, or make a method of your own.`}
          </Typography>
        </Sheet>
      )}
    </Page>
  );
}

interface FamilySheetProps {
  readonly family: string;
  readonly title: string;
  readonly lines: MethodLine[];
  readonly heads: MethodLine[];
}

function FamilySheet({ family, title, lines, heads }: FamilySheetProps) {
  return (
    <Sheet component="section" aria-labelledby={`family-${family}`} sx={{ p: 0 }}>
      <Typography id={`family-${family}`} variant="h2" sx={{ px: 2, pt: 1.75, pb: 1 }}>
        {title}
        <Box component="span" sx={{ color: colors.inkSoft, fontWeight: 400, ml: 1 }}>
          {lines.length}
        </Box>
      </Typography>
      <Box component="ul" sx={{ listStyle: "none", m: 0, p: 0 }}>
        {heads.map((head) => (
          <Box component="li" key={head.id} sx={{ borderTop: `1px solid ${colors.line}` }}>
            <Line method={head} />
            {lines
              .filter((m) => m.variantOf === head.id)
              .map((variant) => (
                <Line key={variant.id} method={variant} nested />
              ))}
          </Box>
        ))}
      </Box>
    </Sheet>
  );
}

function Line({ method, nested = false }: { method: MethodLine; nested?: boolean }) {
  const say = useSay();
  const { id, title, equation, differs, own, retired } = method;
  return (
    <Box
      component={Link}
      to={`/methods/${id}`}
      sx={{
        display: "block",
        color: "inherit",
        textDecoration: "none",
        px: 2,
        py: nested ? 0.75 : 1.1,
        pl: nested ? 4 : 2,
        "&:hover": { bgcolor: colors.tealWash },
        "&:focus-visible": { outlineOffset: -3 },
      }}
    >
      <Box component="span" sx={{ fontWeight: nested ? 500 : 650, color: colors.teal, display: "block" }}>
        {title}
        {own && (
          <Box component="span" sx={{ color: colors.inkSoft, fontWeight: 400 }}>
            {" "}
            ({retired ? say`yours, retired` : say`yours`})
          </Box>
        )}
      </Box>
      <Box component="span" sx={{ color: colors.inkSoft, fontSize: "0.92rem", display: "block" }}>
        {nested ? say`another way: ${differs ?? ""}` : equation && prettyEquation(equation)}
      </Box>
    </Box>
  );
}
