import { archiveOf } from "~/formats/archive/write";
import { database } from "~/server/lab/current";
import { signer, signingLab } from "~/server/lab/signer";
import { partsOfLab } from "~/server/queries/whole-lab";

/** The whole lab as one archive of open files, signed. */
export async function loader() {
  const [db, now] = [await database(), new Date()];
  const archive = await archiveOf(await partsOfLab(db, await signer(db, now)), await signingLab(db), now);
  return new Response(archive, {
    headers: {
      "Content-Type": "application/zip",
      "Content-Disposition": `attachment; filename="lab-${now.toISOString().slice(0, 10)}.zip"`,
      "Cache-Control": "no-store",
    },
  });
}
