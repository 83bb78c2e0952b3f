import { compareStatus, type Status } from '../piece';
import type { Judged, Judging, Rule } from './finding';
import { rules } from './rules';
import { lifeStagePhrase } from './words';

/** Every judgement there is on a piece, sound ones too, in the order of the rules. */
export function findingsOf(on: Judging): Judged[] {
  return rules.flatMap((r) => r.judge(on));
}

/** The rule that makes findings of this id. */
export function ruleOf(id: string): Rule | undefined {
  const first = id.split('/')[0];
  return rules.find((r) => r.id === first);
}

/** The worst of what its load does to it, standing, hung or worn: by verdict, then by how far over its limit it is. */
export interface Worst {
  readonly finding: string;
  readonly status: Status;
  readonly sentence: string;
}

const ofLoad = new Set(['hanging', 'wall', 'worn', 'straps']);

export function worstOf(findings: readonly Judged[]): Worst | null {
  const over = (f: Judged) =>
    f.smallerIsWorse ? f.limit / Math.max(1e-9, f.measured) : f.measured / Math.max(1e-9, f.limit);
  const worst = findings
    .filter((f) => f.station === 'load' || ofLoad.has(f.id))
    .reduce<Judged | null>((w, f) => {
      if (w === null) return f;
      const by = compareStatus(f.status, w.status);
      return by > 0 || (by === 0 && over(f) > over(w)) ? f : w;
    }, null);
  if (!worst) return null;
  const when = worst.stage ? `, ${lifeStagePhrase(worst.stage)}` : '';
  const why = worst.cause ? `, from ${worst.cause}` : '';
  const figure = worst.status === 'sound' ? 'Nothing is near its limit; nearest is' : 'Worst of all';
  return {
    finding: worst.id,
    status: worst.status,
    sentence: `${figure}: ${worst.place}${when}${why}. ${worst.sentence}`,
  };
}
