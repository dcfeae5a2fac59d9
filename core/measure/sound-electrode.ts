/* What a sound electrode does, apart from how it is computed: fields that are checked by it need nothing else. Common practice, no source. */

/** The slope of a sound electrode, percent of theory. */
export const soundSlope = [92, 102] as const;
/** A sound electrode's potential at pH 7 is no further from zero than this, mV. */
export const soundOffsetMv = 30;
/** Buffers this far off their line are not fresh, pH. */
export const soundOffLine = 0.05;
