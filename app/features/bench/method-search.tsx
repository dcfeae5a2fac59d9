import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { prettyEquation } from "~/core/chemistry";
import { msg, type Phrase } from "~/core/text";
import type { MethodChoice } from "~/protocol/answers";
import { colors } from "../../theme/theme";
import { useSay } from "../../words/text";
import { familyTitles } from "../methods/families";

interface Option extends MethodChoice {
  readonly group: Phrase;
}

/** Methods in the order in which they are listed: those used last, then the library by family. */
function optionsOf(methods: readonly MethodChoice[]): Option[] {
  const recent = methods
    .filter((m) => m.recent !== null)
    .toSorted((a, b) => (a.recent ?? 0) - (b.recent ?? 0))
    .map((m) => ({ ...m, group: msg`Recent` }));
  const byFamily = Object.entries(familyTitles).flatMap(([family, group]) =>
    methods.filter((m) => m.family === family).map((m) => ({ ...m, group })),
  );
  return [...recent, ...byFamily];
}

/** Within each group those first whose title has all words: what only their purpose or substances name comes after. */
function titleFirst(found: readonly Option[], words: readonly string[]): Option[] {
  const named = ({ title }: Option) => words.every((word) => title.toLowerCase().includes(word));
  const groups = [...new Set(found.map(({ group }) => group))];
  return groups.flatMap((group) => {
    const own = found.filter((option) => option.group === group);
    return [...own.filter(named), ...own.filter((option) => !named(option))];
  });
}

interface MethodSearchProps {
  readonly methods: readonly MethodChoice[];
  readonly method: MethodChoice | null;
  readonly missing: boolean;
  readonly onChoose: (method: MethodChoice | null) => void;
}

/** The method, found by its name, a substance or its family. */
export function MethodSearch({ methods, method, missing, onChoose }: MethodSearchProps) {
  const say = useSay();
  const [options] = useState(() => optionsOf(methods));
  const chosen = options.find((option) => option.id === method?.id) ?? null;
  return (
    <Autocomplete
      options={options}
      value={chosen}
      onChange={(_event, option) => onChoose(option)}
      groupBy={({ group }) => say(group)}
      getOptionLabel={({ title }) => title}
      getOptionKey={({ id, group }) => `${say(group)} ${id}`}
      isOptionEqualToValue={(a, b) => a.id === b.id && a.group === b.group}
      filterOptions={(all, { inputValue }) => {
        const words = inputValue.toLowerCase().split(/\s+/).filter(Boolean);
        const found = all.filter((m) => words.every((word) => m.words.includes(word)));
        if (words.length === 0) return found;
        // Once something is typed, a method is listed once.
        const seen = new Set<string>();
        return titleFirst(
          found.filter(({ id }) => !seen.has(id) && seen.add(id)),
          words,
        );
      }}
      autoHighlight
      openOnFocus
      noOptionsText={say`No method found. Try a substance, such as NaOH.`}
      renderGroup={({ key, group, children }) => (
        <li key={key} role="presentation">
          <Box
            role="presentation"
            sx={{ px: 2, pt: 1, color: colors.inkSoft, fontWeight: 700, fontSize: "0.9rem" }}
          >
            {group}
          </Box>
          <Box component="ul" role="group" aria-label={group} sx={{ p: 0 }}>
            {children}
          </Box>
        </li>
      )}
      renderOption={({ key: _, ...props }, option) => (
        <Box component="li" key={`${say(option.group)} ${option.id}`} {...props} sx={{ minHeight: 44 }}>
          <Box sx={{ minWidth: 0 }}>
            <Box sx={{ lineHeight: 1.3 }}>{option.title}</Box>
            <Box
              sx={{ color: colors.inkSoft, fontSize: "0.9rem", overflow: "hidden", textOverflow: "ellipsis" }}
            >
              {prettyEquation(option.equation)}
            </Box>
          </Box>
        </Box>
      )}
      renderInput={(params) => (
        <TextField
          {...params}
          label={say`Method`}
          placeholder={say`name or substance`}
          autoFocus={method === null}
          error={missing}
          helperText={missing ? say`Choose a method` : method?.purpose}
        />
      )}
    />
  );
}
