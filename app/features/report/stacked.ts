/** Parts below each other. Blocks and not a grid: browsers break a grid over pages badly, with lines over each other. */
export const stacked = (gap: number) => ({ minWidth: 0, "& > * + *": { mt: gap } }) as const;
