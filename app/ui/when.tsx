import dayjs from "dayjs";
import { msg } from "~/core/text";
import { useSay } from "../words/text";

export const patterns = {
  day: msg`MMM D`,
  /** With the year: on paper, which outlives it. */
  dated: msg`MMM D, YYYY`,
  datedTime: msg`MMM D, YYYY, HH:mm`,
  long: msg`dddd, MMMM D`,
  time: msg`MMM D, HH:mm`,
  exact: msg`MMM D, HH:mm:ss`,
} as const;

/**
 * A moment as people say it. Server and browser may stand in different zones: what the server wrote is kept, so that
 * the page does not change under the reader's eyes.
 */
export function When({ at, as = "day" }: { at: string | Date; as?: keyof typeof patterns }) {
  const say = useSay();
  return (
    <time dateTime={new Date(at).toISOString()} suppressHydrationWarning>
      {dayjs(at).format(say(patterns[as]))}
    </time>
  );
}
