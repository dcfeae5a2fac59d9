import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import type { ReactNode } from "react";
import { type Phrase, msg, unitText } from "~/core/text";
import { historyStates, type HistoryState, type ResultChoice, resultKey } from "~/protocol/history";
import { Sheet } from "../../ui/sheet";
import { useSay } from "../../words/text";
import { useAsked } from "./use-asked";

const stateWords: Readonly<Record<HistoryState, Phrase>> = {
  open: msg`in progress`,
  finished: msg`finished`,
  countersigned: msg`countersigned`,
  archived: msg`archived`,
};

export interface FiltersProps {
  readonly methods: readonly { readonly id: string; readonly title: string }[];
  readonly results: readonly ResultChoice[];
}

/** Search fields. Each takes effect when it is left, or by Enter. */
export function Filters({ methods, results }: FiltersProps) {
  const say = useSay();
  const { search, ask } = useAsked();
  const result = search.get("result") ?? "";
  const unit = result.split("|")[0] ?? "";
  return (
    <Sheet component="section" aria-label={say`Find runs`} sx={{ mb: 2 }}>
      <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap", alignItems: "flex-start" }}>
        <Typed name="q" label={say`Title, sample or bench`} width={230} />
        <Typed name="sample" label={say`Sample`} width={130} />
        <Typed name="person" label={say`Person`} width={130} />
        <Typed name="solution" label={say`Solution, as S-12`} width={140} />
        <Chosen name="method" label={say`Method`} width={230} none={say`all methods`}>
          {methods.map(({ id, title }) => (
            <option key={id} value={id}>
              {title}
            </option>
          ))}
        </Chosen>
        <Typed name="from" label={say`Begun from`} width={160} type="date" />
        <Typed name="to" label={say`to`} width={160} type="date" />
        <Chosen name="state" label={say`State`} width={150} none={say`not archived`}>
          {historyStates.map((state) => (
            <option key={state} value={state}>
              {say(stateWords[state])}
            </option>
          ))}
        </Chosen>
        <Chosen name="result" label={say`Result`} width={300} none={say`main result`}>
          {results.map((one) => (
            <option key={resultKey(one)} value={resultKey(one)}>
              {say`${one.name}, ${unitText(one.unit)}`} ({one.count})
            </option>
          ))}
        </Chosen>
        {result !== "" && (
          <>
            <Typed name="least" label={say`From, ${unitText(unit)}`} width={120} numeric />
            <Typed name="most" label={say`to, ${unitText(unit)}`} width={120} numeric />
          </>
        )}
        {[...search.keys()].some((name) => !["sort", "order", "page", "size"].includes(name)) && (
          <Button
            onClick={() => ask(Object.fromEntries([...search.keys()].map((name) => [name, null])))}
            color="secondary"
          >
            {say`Clear filters`}
          </Button>
        )}
      </Box>
    </Sheet>
  );
}

interface FieldProps {
  readonly name: string;
  readonly label: string;
  readonly width: number;
}

const isNumber = (text: string) => /^\s*[+-]?\d+([.,]\d+)?\s*$/.test(text);

/** A field that is typed in. */
function Typed({
  name,
  label,
  width,
  type = "search",
  numeric = false,
}: FieldProps & { readonly type?: string; readonly numeric?: boolean }) {
  const say = useSay();
  const { search, ask } = useAsked();
  const value = search.get(name) ?? "";
  const wrong =
    value !== "" &&
    ((numeric && !isNumber(value)) || (name === "solution" && !/^\s*(s-?)?\d{1,9}\s*$/i.test(value)));
  const take = (text: string) => {
    if (text !== value) ask({ [name]: text });
  };
  return (
    <TextField
      // Another value in the address, as by the back button, is shown in place of what stood there.
      key={value}
      size="small"
      type={type}
      label={label}
      defaultValue={value}
      error={wrong}
      helperText={wrong ? (numeric ? say`a number, as 0.1` : say`a number, as S-12`) : undefined}
      onBlur={(event) => take(event.target.value)}
      onKeyDown={(event) => {
        if (event.key === "Enter") take((event.target as HTMLInputElement).value);
      }}
      onChange={(event) => {
        // A date that is picked, or a search that is emptied, takes effect at once.
        if (type === "date" || event.target.value === "") take(event.target.value);
      }}
      slotProps={{
        inputLabel: type === "date" ? { shrink: true } : {},
        htmlInput: { maxLength: 200, ...(numeric ? { inputMode: "decimal" as const } : {}) },
      }}
      sx={{ width: { xs: 1, sm: width } }}
    />
  );
}

/** A field that is chosen from a list. */
function Chosen({
  name,
  label,
  width,
  none,
  children,
}: FieldProps & { readonly none: string; readonly children: ReactNode }) {
  const { search, ask } = useAsked();
  const changes: Readonly<Record<string, null>> =
    name === "result" ? { least: null, most: null, first: null, mean: null, s: null } : {};
  return (
    <TextField
      select
      size="small"
      label={label}
      value={search.get(name) ?? ""}
      onChange={(event) => ask({ ...changes, [name]: event.target.value })}
      slotProps={{ select: { native: true }, inputLabel: { shrink: true } }}
      sx={{ width: { xs: 1, sm: width } }}
    >
      <option value="">{none}</option>
      {children}
    </TextField>
  );
}
