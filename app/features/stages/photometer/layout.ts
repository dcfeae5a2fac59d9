/** A column of sheets; on a phone all sheets of both columns stand in one row of their own order. */
export const column = { display: { xs: "contents", md: "grid" }, gap: 2, minWidth: 0 } as const;
