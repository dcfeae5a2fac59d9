import { test } from "@jest/globals";

/** For tests that take long and are seldom broken alone: bin/test leaves them out, bin/test --all does not. */
export const longTest: typeof test = process.env.LONG_TESTS ? test : (test.skip as typeof test);
