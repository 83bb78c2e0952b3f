import { call, chance, entry, pause, percentile, randomUUID } from './support';
const base = process.argv[2]!, clients = 60, seconds = Number(process.argv[3] ?? 20);
const demo = (await call('GET', `${base}/api/builds`)).json as { id: string; name: string }[];
const pieces = await Promise.all(Array.from({ length: clients }, async (_, i) => { const { id } = (await call('POST', `${base}/api/builds/${demo[i % 8]!.id}/copy`)).json as { id: string }; return { id, ...((await call('GET', `${base}/api/builds/${id}`)).json as { revision: number; build: Record<string, unknown> }) }; }));
await pause(8000);
const began = performance.now(); const over = () => performance.now() - began > seconds * 1000; const looks: number[] = [], saves: number[] = [];
await Promise.all([...pieces.map(async (p) => { await pause(chance(1000)); for (let n = 0; !over(); n++) { const t = performance.now(); const r = await call('PUT', `${base}/api/builds/${p.id}`, { revision: p.revision, saveId: randomUUID(), document: { ...p.build, brief: { ...(p.build['brief'] as object), note: `${n}` } }, history: { past: [], future: [] }, label: 'note' }); p.revision = (r.json as { revision: number }).revision; saves.push(r.ms); if (n % 5 === 0) await call('POST', `${base}/api/builds/${p.id}/log`, entry('x')); await pause(Math.max(0, 1000 - (performance.now() - t))); } }), (async () => { while (!over()) { looks.push((await call('GET', `${base}/api/settings`)).ms); await pause(50); } })()]);
console.log('looks p50', percentile(looks, 0.5), 'p95', percentile(looks, 0.95), 'saves', saves.length, percentile(saves, 0.5), percentile(saves, 0.95));
process.exit(0);
