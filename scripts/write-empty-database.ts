import { prepareEmptyDatabase } from "../server/database/empty-database";

/* Prepares the database that a new lab begins with. Part of the build, and of the tests' beginning. */
void prepareEmptyDatabase();
