// Makes the demo database in DATA_DIR (default data/demo), once.
import path from "node:path";
import { openDatabase } from "../server/lab/open-database";
import { LabFolderError } from "../server/lab/lab-folder";
import { FolderInUseError } from "../server/lab/lock";
import { listOpenRuns } from "../server/queries/runs";
import { seedDemo } from "../server/seed/demo";

try {
  const folder = path.resolve(process.env.DATA_DIR ?? "data/demo");
  const { db, close } = await openDatabase(folder);
  try {
    if ((await listOpenRuns(db)).length === 0) await seedDemo(db, new Date());
  } finally {
    // An open database would keep the process alive after a failure.
    await close();
  }
} catch (error) {
  console.error(error instanceof FolderInUseError || error instanceof LabFolderError ? error.message : error);
  process.exitCode = 1;
}
