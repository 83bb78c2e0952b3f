'use client';
import {
  CartesianGrid,
  Legend,
  Line,
  LineChart,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { curveAt, nightsUntil } from '../../../core/drying';
import { sensible } from '../../../core/quantity';
import { useBench } from '../../bench/context';
import { moistureShare } from './moisture';

const day = 86400;
const strokes = [
  ['var(--iron)', '0'],
  ['var(--fails)', '6 3'],
  ['var(--sound)', '2 3'],
  ['var(--watch)', '8 3 2 3'],
] as const;
/** More nights than this would be a grey field. */
const mostNights = 24;

/** Water still to leave against days: regions by the quick answer, or chosen places by the full one. */
export default function MoistureChart() {
  const report = useBench((s) => s.report);
  const dryTime = useBench((s) => s.dryTime);
  const whole = useBench((s) => s.whole.whole);
  const probes = useBench((s) => s.probes);
  const startHour = useBench((s) => s.build.stages.startHour);
  if (!report) return null;
  const places = whole ? probes.map((p, i) => ({ name: `place ${i + 1}`, curve: curveAt(whole, p) })) : [];
  const longest =
    Math.max(
      1,
      ...(places.length > 0 && whole ? [whole.last.time] : []),
      ...report.regions.map((r) => r.throughDry ?? 0),
    ) * 1.1;
  const points =
    places.length > 0 && whole
      ? whole.frames
          .filter((f) => f.time <= longest)
          .map((f, i) => {
            const row: Record<string, number | null> = { days: f.time / day };
            for (const p of places)
              row[p.name] = p.curve[i]?.wet === null ? null : Math.round((p.curve[i]?.wet ?? 0) * 1000) / 10;
            return row;
          })
      : Array.from({ length: 90 }, (_, i) => {
          const time = (longest * i) / 89;
          const row: Record<string, number | null> = { days: time / day };
          for (const r of report.regions) row[r.name] = Math.round(moistureShare(r, time) * 1000) / 10;
          return row;
        });
  const names =
    places.length > 0 ? places.map((p) => p.name) : report.regions.filter((r) => r.coats.length > 0).map((r) => r.name);
  const nights = nightsUntil(startHour, longest);
  return (
    <figure
      aria-label={
        places.length > 0
          ? 'Water still to leave at the chosen places, against days'
          : 'Water still to leave, by region, against days'
      }
    >
      <ResponsiveContainer width="100%" height={210}>
        <LineChart data={points} margin={{ top: 8, right: 8, bottom: 18, left: 4 }}>
          {nights.length <= mostNights &&
            nights.map((n) => (
              <ReferenceArea
                key={n.from}
                x1={n.from / day}
                x2={n.until / day}
                fill="var(--ink)"
                fillOpacity={0.06}
                stroke="none"
              />
            ))}
          <CartesianGrid stroke="var(--hair)" vertical={false} />
          <XAxis
            dataKey="days"
            type="number"
            domain={[0, longest / day]}
            tickFormatter={(v: number) => sensible(v, 2)}
            stroke="var(--muted)"
            label={{ value: 'days', position: 'bottom', offset: 2, fill: 'var(--muted)' }}
          />
          <YAxis domain={[0, 100]} stroke="var(--muted)" unit=" %" width={60} />
          <Tooltip
            formatter={(v) => `${String(v)} %`}
            labelFormatter={(v) => `${sensible(Number(v), 2)} days`}
            contentStyle={{ background: 'var(--paper)', border: '1px solid var(--slip)' }}
          />
          <Legend verticalAlign="top" height={24} />
          <ReferenceLine x={dryTime / day} stroke="var(--ink)" strokeDasharray="3 3" />
          {names.map((name, i) => {
            const [stroke, dash] = strokes[i % strokes.length] ?? strokes[0];
            return (
              <Line
                key={name}
                dataKey={name}
                stroke={stroke}
                strokeDasharray={dash}
                strokeWidth={2}
                dot={false}
                isAnimationActive={false}
              />
            );
          })}
        </LineChart>
      </ResponsiveContainer>
    </figure>
  );
}
