'use client';
import { CartesianGrid, ResponsiveContainer, Scatter, ScatterChart, Tooltip, XAxis, YAxis } from 'recharts';
import { sensible } from '../../../core/quantity';
import type { StrengthenResult, Strengthening } from '../../../core/improve';
import { useBench } from '../../bench/context';

/** Sets of changes that hold, by the weight and the work they bring. */
export default function TradeOffs({
  result,
  picked,
  onPick,
}: {
  result: StrengthenResult;
  picked: Strengthening | null;
  onPick: (s: Strengthening) => void;
}) {
  const units = useBench((s) => s.units);
  const perUnit = units === 'imperial' ? 1 / 0.45359237 : 1;
  const point = (s: Strengthening) => ({ weight: s.weight * perUnit, effort: s.effort * 60, set: s });
  const front = result.front.map((i) => result.sets[i]!);
  const others = result.sets.filter((s) => !front.includes(s));
  const pick = (p: { payload?: { set?: Strengthening } }) => p.payload?.set && onPick(p.payload.set);
  return (
    <div className="chart" role="img" aria-label="Sets of changes by weight and work. The table says the same.">
      <ResponsiveContainer width="100%" height={190}>
        <ScatterChart margin={{ top: 8, right: 12, bottom: 22, left: 4 }}>
          <CartesianGrid stroke="var(--hair)" />
          <XAxis
            type="number"
            dataKey="weight"
            tick={{ fontSize: 12, fill: 'var(--ink)' }}
            tickFormatter={(v: number) => sensible(v, 2)}
            label={{
              value: units === 'imperial' ? 'weight more, lb' : 'weight more, kg',
              position: 'insideBottom',
              offset: -12,
              fontSize: 12,
              fill: 'var(--ink)',
            }}
          />
          <YAxis
            type="number"
            dataKey="effort"
            tick={{ fontSize: 12, fill: 'var(--ink)' }}
            width={44}
            label={{ value: 'work, min', angle: -90, position: 'insideLeft', fontSize: 12, fill: 'var(--ink)' }}
          />
          <Tooltip
            cursor={false}
            content={({ payload }) => {
              const set = (payload?.[0]?.payload as { set?: Strengthening } | undefined)?.set;
              return set ? (
                <div className="tip">
                  {set.choices.map((c) => (
                    <div key={c.id}>{c.label}</div>
                  ))}
                </div>
              ) : null;
            }}
          />
          <Scatter
            name="others"
            data={others.map(point)}
            fill="var(--iron)"
            fillOpacity={0.35}
            shape="circle"
            onClick={pick}
            isAnimationActive={false}
          />
          <Scatter
            name="front"
            data={front.filter((s) => s !== picked).map(point)}
            fill="var(--sound)"
            shape="diamond"
            onClick={pick}
            isAnimationActive={false}
            line={front.length > 1}
          />
          {picked && (
            <Scatter name="shown" data={[point(picked)]} fill="var(--watch)" shape="star" isAnimationActive={false} />
          )}
        </ScatterChart>
      </ResponsiveContainer>
      <p className="hint">
        Diamonds: nothing beats them in weight, cost and work together. Dots: others that hold. Star: the one shown.
      </p>
    </div>
  );
}
