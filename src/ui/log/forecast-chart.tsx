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
import type { ScaleReport } from '../../core/piece';
import { useBench } from '../bench/context';

type Curve = ScaleReport['curve'];

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

/** The forecast between its points. */
function curveAt(curve: Curve, t: number): Curve[number] {
  const i = Math.max(
    1,
    curve.findIndex((p) => p.time >= t),
  );
  const a = curve[i - 1] ?? curve[0]!,
    b = curve[i] ?? a;
  const f = Math.min(1, Math.max(0, (t - a.time) / (b.time - a.time || 1)));
  const mix = (u: number, v: number) => u + (v - u) * f;
  return { time: t, low: mix(a.low, b.low), at: mix(a.at, b.at), high: mix(a.high, b.high) };
}

/** The one forecast, as the weighings have corrected it, with its band and the weighings. */
export default function ForecastChart() {
  const report = useBench((s) => s.report);
  const units = useBench((s) => s.units);
  const reckoning = useBench((s) => s.reckoning);
  // The scale's curve comes with the ranges: until then there is no telling that it has none.
  if (!report || (!report.scale && (reckoning === 'nominal' || reckoning === 'ranges')))
    return (
      <div style={{ height: 280 }} className="muted">
        Working out the forecast …
      </div>
    );
  if (!report.scale)
    return <p className="muted">This clay does not dry: what it weighs today it weighs when it is done.</p>;
  const { curve, fit } = report.scale;
  const { readings } = report.logged;
  const shown = (kg: number) => Math.round((units === 'imperial' ? kg / 0.45359237 : kg) * 1000) / 1000;
  const line = curve.map((p) => ({
    days: p.time / day,
    forecast: shown(p.at),
    band: [shown(p.low), shown(p.high)],
  }));
  const odd = new Set(fit?.odd.map((o) => o.index));
  const dots = readings.map((r, i) => ({ days: r.time / day, [odd.has(i) ? 'odd' : 'reading']: shown(r.mass) }));
  const last = readings[readings.length - 1];
  const there = last ? curveAt(curve, last.time) : null;
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
              tickFormatter={(v: number) => sensible(v, 3)}
              width={78}
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
            <Line
              dataKey="forecast"
              name={fit ? 'forecast, as weighed' : 'forecast'}
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
      {last && there && <p>{comparison(last.mass, there.at, there.low, there.high, units)}</p>}
    </>
  );
}
