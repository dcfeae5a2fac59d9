import dayjs from "dayjs";

const patterns = {
  day: "D MMM",
  long: "dddd D MMMM",
  time: "D MMM, HH:mm",
  exact: "D MMM, HH:mm:ss",
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
