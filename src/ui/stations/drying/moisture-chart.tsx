'use client';
import { CartesianGrid, Legend, Line, LineChart, ReferenceLine, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { sensible } from '../../../core/quantity';
import { useBench } from '../../bench/context';
import { moistureShare } from './moisture';

const day = 86400;
const strokes = [['var(--iron)', '0'], ['var(--fails)', '6 3'], ['var(--sound)', '2 3'], ['var(--watch)', '8 3 2 3']] as const;

export default function MoistureChart() {
  const report = useBench((s) => s.report);
  const dryTime = useBench((s) => s.dryTime);
  if (!report) return null;
  const longest = Math.max(1, ...report.regions.map((r) => r.throughDry ?? 0)) * 1.1;
  const points = Array.from({ length: 90 }, (_, i) => {
    const time = (longest * i) / 89;
    const row: Record<string, number> = { days: time / day };
    for (const r of report.regions) row[r.name] = Math.round(moistureShare(r, time) * 1000) / 10;
    return row;
  });
  return (
    <figure aria-label="Water still to leave, by region, against days">
      <ResponsiveContainer width="100%" height={210}>
        <LineChart data={points} margin={{ top: 8, right: 8, bottom: 18, left: 4 }}>
          <CartesianGrid stroke="var(--hair)" vertical={false} />
          <XAxis dataKey="days" type="number" domain={[0, 'dataMax']} tickFormatter={(v: number) => sensible(v, 2)} stroke="var(--muted)" label={{ value: 'days', position: 'bottom', offset: 2, fill: 'var(--muted)' }} />
          <YAxis domain={[0, 100]} stroke="var(--muted)" unit=" %" width={60} />
          <Tooltip formatter={(v) => `${String(v)} %`} labelFormatter={(v) => `${sensible(Number(v), 2)} days`} contentStyle={{ background: 'var(--paper)', border: '1px solid var(--slip)' }} />
          <Legend verticalAlign="top" height={24} />
          <ReferenceLine x={dryTime / day} stroke="var(--ink)" strokeDasharray="3 3" />
          {report.regions.map((r, i) => {
            const [stroke, dash] = strokes[i % strokes.length] ?? strokes[0];
            return <Line key={r.id} dataKey={r.name} stroke={stroke} strokeDasharray={dash} strokeWidth={2} dot={false} isAnimationActive={false} />;
          })}
        </LineChart>
      </ResponsiveContainer>
    </figure>
  );
}
