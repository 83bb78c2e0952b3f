'use client';
import {
  Area,
  CartesianGrid,
  ComposedChart,
  Legend,
  Line,
  ResponsiveContainer,
  Scatter,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { formatMass, sensible } from '../../core/quantity';
import { useBench } from '../bench/context';
import type { WeighingReport } from '../../core/verdict';
import type { ReadEntry } from '../../core/plan';
import { clayWentOn, readingsOf } from '../../core/plan';
import { forecastOf } from './forecast';

const day = 86400;

/** One sentence on how the last reading stands to the forecast. */
function comparison(reading: number, at: number, least: number, most: number, units: 'metric' | 'imperial'): string {
  const off = reading - at;
  const size = formatMass(Math.abs(off), units);
  if (reading >= Math.min(least, most) && reading <= Math.max(least, most))
    return `The last weighing is within the band, ${size} ${off >= 0 ? 'above' : 'below'} the forecast.`;
  return off > 0
    ? `The last weighing is ${size} heavier than the forecast: it is drying slower, or more clay went on.`
    : `The last weighing is ${size} lighter than the forecast: it is drying faster, or less clay went on.`;
}

export default function ForecastChart({ entries, fit }: { entries: readonly ReadEntry[]; fit: WeighingReport | null }) {
  const build = useBench((s) => s.build);
  const report = useBench((s) => s.report);
  const units = useBench((s) => s.units);
  if (!report)
    return (
      <div style={{ height: 280 }} className="muted">
        Working out the forecast …
      </div>
    );
  const forecast = forecastOf(build, report);
  if (!forecast) return null;
  const readings = readingsOf(entries, clayWentOn(build, entries));
  const until = Math.max(forecast.until, ...readings.map((r) => r.time * 1.1));
  const shown = (kg: number) => Math.round((units === 'imperial' ? kg / 0.45359237 : kg) * 1000) / 1000;
  const line = Array.from({ length: 80 }, (_, i) => {
    const t = (until * i) / 79;
    const least = forecast.least(t),
      most = forecast.most(t);
    const seen = fit ? fittedAt(fit, t) : null;
    return {
      days: t / day,
      ...(seen ? { fitted: shown(seen.at), fittedBand: [shown(seen.low), shown(seen.high)] } : {}),
      forecast: shown(forecast.at(t)),
      band: [shown(Math.min(least, most)), shown(Math.max(least, most))],
    };
  });
  const odd = new Set(fit?.fit.odd.map((o) => o.index));
  const dots = readings.map((r, i) => ({ days: r.time / day, [odd.has(i) ? 'odd' : 'reading']: shown(r.mass) }));
  const last = readings[readings.length - 1];
  return (
    <>
      <figure aria-label="Weight forecast with its band, and the weighings, against days" className="mb-1">
        <ResponsiveContainer width="100%" height={280}>
          <ComposedChart data={line} margin={{ top: 8, right: 12, bottom: 18, left: 0 }}>
            <CartesianGrid stroke="var(--hair)" vertical={false} />
            <XAxis
              dataKey="days"
              type="number"
              domain={[0, 'dataMax']}
              tickFormatter={(v: number) => sensible(v, 2)}
              stroke="var(--muted)"
              label={{ value: 'days since the clay went on', position: 'bottom', offset: 2, fill: 'var(--muted)' }}
            />
            <YAxis
              stroke="var(--muted)"
              domain={['auto', 'auto']}
              unit={units === 'imperial' ? ' lb' : ' kg'}
              width={64}
            />
            <Tooltip
              labelFormatter={(v) => `${sensible(Number(v), 2)} days`}
              contentStyle={{ background: 'var(--paper)', border: '1px solid var(--slip)' }}
            />
            <Legend verticalAlign="top" height={26} />
            <Area
              dataKey="band"
              name="where it may lie"
              stroke="none"
              fill="var(--iron)"
              fillOpacity={0.16}
              isAnimationActive={false}
              legendType="rect"
            />
            {fit && (
              <Area
                dataKey="fittedBand"
                name="as weighed, where it may lie"
                stroke="none"
                fill="var(--sound)"
                fillOpacity={0.22}
                isAnimationActive={false}
                legendType="rect"
              />
            )}
            {fit && (
              <Line
                dataKey="fitted"
                name="forecast as weighed"
                stroke="var(--sound)"
                strokeWidth={2}
                strokeDasharray="7 3"
                dot={false}
                isAnimationActive={false}
                legendType="plainline"
              />
            )}
            <Line
              dataKey="forecast"
              name="forecast"
              stroke="var(--iron)"
              strokeWidth={2}
              dot={false}
              isAnimationActive={false}
              legendType="plainline"
            />
            <Scatter
              data={dots}
              dataKey="reading"
              name="weighed"
              fill="var(--fails)"
              isAnimationActive={false}
              legendType="circle"
            />
            {odd.size > 0 && (
              <Scatter
                data={dots}
                dataKey="odd"
                name="set aside"
                fill="none"
                stroke="var(--watch)"
                shape="cross"
                isAnimationActive={false}
                legendType="cross"
              />
            )}
          </ComposedChart>
        </ResponsiveContainer>
      </figure>
      {last && (
        <p>
          {comparison(last.mass, forecast.at(last.time), forecast.least(last.time), forecast.most(last.time), units)}
        </p>
      )}
    </>
  );
}

/** The fitted forecast between its points. */
function fittedAt(fit: WeighingReport, t: number): { low: number; at: number; high: number } {
  const i = Math.max(
    1,
    fit.curve.findIndex((p) => p.time >= t),
  );
  const a = fit.curve[i - 1] ?? fit.curve[0],
    b = fit.curve[i] ?? a;
  if (!a || !b) return { low: 0, at: 0, high: 0 };
  const f = Math.min(1, Math.max(0, (t - a.time) / (b.time - a.time || 1)));
  return { low: a.low + (b.low - a.low) * f, at: a.at + (b.at - a.at) * f, high: a.high + (b.high - a.high) * f };
}
