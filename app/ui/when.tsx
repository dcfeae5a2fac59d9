import dayjs from "dayjs";

const patterns = {
  day: "MMM D",
  long: "dddd, MMMM D",
  time: "MMM D, HH:mm",
  exact: "MMM D, HH:mm:ss",
} as const;

/**
 * A moment as people say it. Server and browser may stand in different zones: what the server wrote is kept, so that
 * the page does not change under the reader's eyes.
 */
export function When({ at, as = "day" }: { at: string | Date; as?: keyof typeof patterns }) {
  return (
    <time dateTime={new Date(at).toISOString()} suppressHydrationWarning>
      {dayjs(at).format(patterns[as])}
    </time>
  );
}
