import { failure, type Result } from "~/core/result";
import { type Clock, type InstrumentConnection, type InstrumentReading, wallClock } from "./instrument";
import { msg } from "~/core/text";

/** How long an instrument may say nothing before one is told, s. */
const silenceSeconds = 4;

/** Listens to a connection and says so when nothing comes any more; a reading that comes after that is heard as before. */
export function watched(
  connection: InstrumentConnection,
  listener: (reading: Result<InstrumentReading>) => void,
  clock: Clock = wallClock,
): () => void {
  let lastAt = clock.now();
  let notified = false;
  const stopStream = connection.stream((reading) => {
    lastAt = clock.now();
    notified = false;
    listener(reading);
  });
  const stopWatch = clock.every(1, () => {
    if (notified || !connection.connected() || clock.now() - lastAt < silenceSeconds) return;
    notified = true;
    listener(
      failure(msg`No reading for ${silenceSeconds} s: is the instrument frozen, asleep or switched off?`),
    );
  });
  return () => {
    stopStream();
    stopWatch();
  };
}
