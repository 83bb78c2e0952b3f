import { call, chance, entry, gone, mustStart, pause, percentile, randomUUID, Tally, temporary } from './support';

/** So many people at once, each a save a second and an entry every five: how long a plain look takes, beside idle. */
export async function load(clients: number, seconds: number): Promise<void> {
  const tally = new Tally();
  const data = temporary('load');
  try {
    const server = await mustStart(data, ['--demo']);
    const { base } = server;
    const looks = async (until: () => boolean, into: number[]) => {
      while (!until()) {
        const answer = await call('GET', `${base}/api/settings`);
        tally.check(answer.status === 200, `a look was answered ${answer.status}`);
        into.push(answer.ms);
        await pause(50);
      }
    };
    const demo = (await call('GET', `${base}/api/builds`)).json as { id: string; name: string }[];
    const pieces = await Promise.all(
      Array.from({ length: clients }, async (_, i) => {
        const { id } = (await call('POST', `${base}/api/builds/${demo[i % demo.length]!.id}/copy`)).json as {
          id: string;
        };
        return {
          id,
          ...((await call('GET', `${base}/api/builds/${id}`)).json as {
            revision: number;
            build: Record<string, unknown>;
          }),
        };
      }),
    );
    // Idle is when the cards of these pieces are made.
    await pause(20_000);
    const idle: number[] = [];
    const idleFrom = performance.now();
    await looks(() => performance.now() - idleFrom > 5000, idle);
    const began = performance.now();
    const over = () => performance.now() - began > seconds * 1000;
    const busy: number[] = [],
      saves: number[] = [],
      entries: number[] = [];
    const work = pieces.map(async (piece, i) => {
      await pause(chance(1000));
      for (let n = 0; !over(); n++) {
        const turn = performance.now();
        const brief = { ...(piece.build['brief'] as object), note: `${n}` };
        const saved = await call('PUT', `${base}/api/builds/${piece.id}`, {
          revision: piece.revision,
          saveId: randomUUID(),
          document: { ...piece.build, brief },
          history: { past: [], future: [] },
          label: 'note',
        });
        const json = saved.json as { saved?: boolean; revision?: number } | null;
        tally.check(saved.status === 200 && json?.saved === true, `client ${i}: a save was answered ${saved.status}`);
        piece.revision = json?.revision ?? piece.revision;
        saves.push(saved.ms);
        if (n % 5 === 0) {
          const logged = await call('POST', `${base}/api/builds/${piece.id}/log`, entry(`${n}`));
          tally.check(logged.status === 200, `client ${i}: an entry was answered ${logged.status}`);
          entries.push(logged.ms);
        }
        await pause(Math.max(0, 1000 - (performance.now() - turn)));
      }
    });
    await Promise.all([...work, looks(over, busy)]);
    await server.kill();
    const p = (v: readonly number[]) => percentile(v, 0.95).toFixed(0);
    tally.print(
      `${clients} at once for ${seconds} s`,
      `95th percentile of a look ${p(busy)} ms, idle ${p(idle)} ms: ${(percentile(busy, 0.95) / percentile(idle, 0.95)).toFixed(1)} x (wanted under 10); saves ${p(saves)} ms, entries ${p(entries)} ms`,
    );
  } finally {
    gone(data);
  }
}

/** A request that is much work, and how long a plain look waits beside it. */
export async function heavy(): Promise<void> {
  const tally = new Tally();
  const data = temporary('heavy');
  try {
    const server = await mustStart(data, ['--demo']);
    const { base } = server;
    const demo = (await call('GET', `${base}/api/builds`)).json as { id: string; name: string }[];
    const walrus = demo.find((d) => d.name === 'Walrus')!.id;
    const lamplighter = demo.find((d) => d.name === 'The Lamplighter')!.id;
    const opened = (await call('GET', `${base}/api/builds/${walrus}`)).json as {
      revision: number;
      build: { form: { added: unknown[] } };
    };
    const masses = Array.from({ length: 480 }, (_, i) => ({
      id: `more-${i}`,
      name: `more ${i}`,
      region: `region-${i}`,
      at: [(i % 20) * 0.05 - 0.5, Math.floor(i / 20) * 0.04 - 0.5, 1],
      turn: [0, 0, 0],
      op: 'add',
      blend: 0.005,
      shape: { kind: 'ellipsoid', radii: [0.02, 0.02, 0.02] },
    }));
    const crowded = { ...opened.build, name: 'Crowded', form: { ...opened.build.form, added: masses } };
    for (let i = 0; i < 5200; i++)
      if (i % 1000 === 0)
        await Promise.all(
          Array.from({ length: Math.min(1000, 5200 - i) }, (_, k) =>
            call('POST', `${base}/api/builds/${lamplighter}/log`, entry(`entry ${i + k}`)),
          ),
        );
    const idle: number[] = [];
    for (let i = 0; i < 50; i++) idle.push((await call('GET', `${base}/api/settings`)).ms);
    const beside = async (what: string, work: Promise<{ status: number }>) => {
      let done = false;
      const began = performance.now();
      const waits: number[] = [];
      void work.then(() => (done = true));
      while (!done && performance.now() - began < 30_000) {
        waits.push((await call('GET', `${base}/api/settings`)).ms);
        await pause(20);
      }
      const worst = Math.max(...waits);
      tally.check(worst < 2000, `${what}: a look waited ${worst.toFixed(0)} ms`);
      process.stdout.write(
        `    ${what.padEnd(44)} longest look ${worst.toFixed(0)} ms, idle ${percentile(idle, 0.95).toFixed(0)} ms\n`,
      );
    };
    await beside('a build of 500 regions brought in', call('POST', `${base}/api/builds?file`, crowded));
    const raw = fetch(`${base}/api/builds?file`, {
      method: 'POST',
      body: '['.repeat(7_800_000),
      headers: { 'content-type': 'application/json' },
    }).then((r) => ({ status: r.status }));
    await beside('7.8 MB of nested brackets', raw);
    tally.check((await raw).status === 400, 'nested brackets are refused');
    await beside('the calendar of a large piece', call('GET', `${base}/api/builds/${walrus}/plan?as=ics`));
    await beside('a log of 5 200 entries', call('GET', `${base}/api/builds/${lamplighter}/log`));
    await beside('the shelf with it', call('GET', `${base}/`));
    await beside('stock', call('GET', `${base}/api/stock`));
    const stop = new AbortController();
    const streams = Array.from({ length: 100 }, () =>
      fetch(`${base}/api/builds/${lamplighter}/devices`, { signal: stop.signal }).then(async (r) => {
        await r.body?.getReader().read();
        return { status: r.status };
      }),
    );
    await beside(
      '100 watchers of one bench',
      Promise.all(streams).then(() => ({ status: 200 })),
    );
    stop.abort();
    await server.kill();
  } finally {
    gone(data);
  }
  tally.print('much work beside a plain look');
}
