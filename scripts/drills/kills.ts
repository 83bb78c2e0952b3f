import sharp from 'sharp';
import { call, chance, entry, gone, mustStart, pause, randomUUID, Tally, temporary } from './support';

/**
 * The server is killed in the middle of saves, entries, pictures and stock moves, over and over on one folder. Whatever was
 * answered with 200 has to be there afterwards, once.
 */
export async function kills(times: number): Promise<void> {
  const tally = new Tally();
  const data = temporary('kills');
  const acked = { entries: new Set<string>(), pictures: new Set<string>(), moves: new Set<string>(), saves: 0 };
  let build: { id: string; revision: number; document: Record<string, unknown> } | null = null;
  let writes = 0;
  const picture = async () =>
    sharp({
      create: { width: 40 + chance(400), height: 30, channels: 3, background: { r: chance(256), g: 90, b: 60 } },
    })
      .jpeg()
      .toBuffer();
  try {
    for (let round = 0; round <= times; round++) {
      const server = await mustStart(data);
      const { base } = server;
      if (!build) {
        const made = await call('POST', `${base}/api/builds`, {
          name: 'Killed',
          startDate: '2026-12-01',
          size: 0.3,
          form: 'bust',
        });
        const { id } = made.json as { id: string };
        const opened = (await call('GET', `${base}/api/builds/${id}`)).json as {
          revision: number;
          build: Record<string, unknown>;
        };
        build = { id, revision: opened.revision, document: opened.build };
      }
      const { id } = build;
      // What was said to be there is there.
      const log = (await call('GET', `${base}/api/builds/${id}/log`)).json as { id: string }[];
      const there = new Set(log.map((e) => e.id));
      tally.check(there.size === log.length, `round ${round}: an entry stands twice`);
      for (const e of acked.entries) tally.check(there.has(e), `round ${round}: entry ${e} is gone`);
      for (const p of [...acked.pictures].slice(-12))
        tally.check(
          (await call('GET', `${base}/api/builds/${id}/photos/${p}`)).status === 200,
          `round ${round}: picture ${p} is gone`,
        );
      const stock = (await call('GET', `${base}/api/stock`)).json as { moves: { id: string }[] };
      const moves = new Set(stock.moves.map((m) => m.id));
      for (const m of acked.moves) tally.check(moves.has(m), `round ${round}: move ${m} is gone`);
      const now = (await call('GET', `${base}/api/builds/${id}`)).json as {
        revision: number;
        build: { brief: { note: string } };
      };
      tally.check(now.revision >= build.revision, `round ${round}: revision ${now.revision} after ${build.revision}`);
      tally.check(Number(now.build.brief.note || 0) >= acked.saves, `round ${round}: save ${acked.saves} is gone`);
      build.revision = now.revision;
      if (round === times) {
        await server.kill();
        break;
      }
      let over = false;
      const until = async (work: () => Promise<void>) => {
        while (!over) await work();
      };
      let next = Number(now.build.brief.note || 0);
      const saver = until(async () => {
        next++;
        const brief = { ...(build!.document['brief'] as object), note: String(next) };
        const answer = await call('PUT', `${base}/api/builds/${id}`, {
          revision: build!.revision,
          saveId: randomUUID(),
          document: { ...build!.document, brief },
          history: { past: [], future: [] },
          label: 'note',
        });
        const json = answer.json as { saved?: boolean; revision?: number } | null;
        if (answer.status === 200 && json?.saved) {
          acked.saves = next;
          build!.revision = json.revision!;
          writes++;
        } else if (answer.status === 200) over = true;
      });
      const logger = until(async () => {
        const e = entry(`round ${round}`);
        if ((await call('POST', `${base}/api/builds/${id}/log`, e)).status === 200) {
          acked.entries.add(e.id);
          writes++;
        }
      });
      const photographer = until(async () => {
        const p = randomUUID();
        if ((await call('POST', `${base}/api/builds/${id}/photos/${p}`, await picture())).status === 200) {
          acked.pictures.add(p);
          writes++;
        }
      });
      const buyer = until(async () => {
        const m = {
          id: randomUUID(),
          item: 'clay/paper-clay',
          kind: 'bought',
          amount: 1,
          at: new Date().toISOString(),
        };
        if ((await call('POST', `${base}/api/stock`, m)).status === 200) {
          acked.moves.add(m.id);
          writes++;
        }
        await pause(20);
      });
      await pause(100 + chance(900));
      await server.kill();
      over = true;
      await Promise.all([saver, logger, photographer, buyer]);
    }
  } finally {
    gone(data);
  }
  tally.print(`${times} kills: what was acknowledged is there`, `${writes} writes acknowledged`);
}
