import { msg } from "~/core/text";

/** The answer to somebody who has to be an instructor for what they ask. */
export const forInstructors = (): Response =>
  Response.json(
    { status: "refused", message: msg`This is for instructors: sign in as one to go on` },
    { status: 403 },
  );
