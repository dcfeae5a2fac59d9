import { sql } from "drizzle-orm";
import { generateKeyPairSync } from "node:crypto";
import { archiveOf } from "../formats/archive/write";
import { readIncoming } from "../formats/archive/read";
import { signed } from "../formats/proof/sign";
import { historyAsked } from "../protocol/history";
import type { Database } from "../server/database/types";
import { historyOf, resultsInTime } from "../server/queries/history";
import { partsOfLab } from "../server/queries/whole-lab";
import { median, ms, say } from "./bench-parts";

const searches: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  "newest first": {},
  "by words": { q: "bench 77" },
  "by result, sorted by it": {
    ...{ result: "mol/L|Concentration of the acid", least: "0.0999", most: "0.1001" },
    ...{ sort: "result", order: "up" },
  },
  "by person and date, last page": { person: "finn", from: "2020-01-01", page: "50", size: "100" },
};

/** The history of a lab of 10,000 closed runs, and an archive of some of them. All runs of the lab are closed for it. */
export async function benchHistory(db: Database): Promise<void> {
  await db.execute(sql`update run set status = 'finished', finished_at = started_at + interval '1 hour',
    people = case when random() < 0.5 then 'M. Finn' else 'J. Reed' end`);
  await db.execute(sql`insert into run_result (run_id, position, main, stage_key, symbol, name, unit, value, u, shown)
    select id, 0, true, 'determine', 'c_a', 'Concentration of the acid', 'mol/L', 0.1 + (random() - 0.5) * 0.001, 0.0002, '"0.1000 ± 0.0004 mol/L"'::jsonb
    from run on conflict do nothing`);
  await db.execute(sql`analyze run, run_result`);
  for (const [what, search] of Object.entries(searches)) {
    const query = historyAsked(new URLSearchParams(search));
    const times: number[] = [];
    let total = 0;
    for (let i = 0; i < 5; i++) {
      const began = performance.now();
      ({ total } = await historyOf(db, query));
      times.push(performance.now() - began);
    }
    say(`history of 10,000 runs, ${what} (${total} found)`, ms(median(times)), "200 ms");
  }
  const began = performance.now();
  const points = await resultsInTime(
    db,
    historyAsked(new URLSearchParams(searches["by result, sorted by it"])),
  );
  say(`values of a control chart, ${points.length}`, ms(performance.now() - began), "200 ms");
  await benchArchive(db);
}

async function benchArchive(db: Database): Promise<void> {
  const { rows } = await db.execute<{ id: string }>(
    sql`select r.id from run r join stage s on s.run_id = r.id join observation o on o.stage_id = s.id group by r.id limit 200`,
  );
  const signer = { lab: "bench", privateKey: generateKeyPairSync("ed25519").privateKey };
  const at = new Date();
  let began = performance.now();
  const parts = await partsOfLab(
    db,
    (file) => signed(file, signer, at),
    rows.map(({ id }) => id),
  );
  const archive = await archiveOf(parts, signer, at);
  say(
    `archive of ${parts.runs.length} runs, ${(archive.length / 1024 / 1024).toFixed(1)} MB`,
    ms(performance.now() - began),
    "",
  );
  began = performance.now();
  const read = await readIncoming("lab.zip", archive);
  if (!read.ok || read.value.runs.length !== parts.runs.length) throw new Error("The archive was not read");
  say("the same unpacked, verified and computed again", ms(performance.now() - began), "");
}
