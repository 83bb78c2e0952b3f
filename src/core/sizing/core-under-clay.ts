import { findClay, type Build } from '../document';

/**
 * What the core is filled with and wrapped in under a clay, where the maker says nothing of it. Clay that shrinks much and
 * gives little wants a core that gives: loose paper wound with twine. Paper clay and foam-type clay stand firm foil or foam.
 * What is baked takes neither paper, tape nor foam that melts.
 */
export function coreUnder(build: Build): Readonly<Record<string, string>> {
  const clay = findClay(build, build.brief.clay);
  if (!clay.ok) return {};
  const { setting, mixed } = { setting: clay.value.setting, mixed: clay.value.drying };
  const under =
    setting === 'bakes'
      ? 'baked'
      : setting !== 'dries' || !mixed
        ? null
        : mixed.capacityDry < brittleBelow
          ? 'brittle'
          : 'tough';
  const own = cores[build.armature.school.kind];
  return (under && own?.[under]) || {};
}

/** Tensile strain dry clay takes before it cracks: earthen clay less than this, what has fibre in it more. */
const brittleBelow = 0.01;

type Under = 'brittle' | 'tough' | 'baked' | 'sets';
type Core = Readonly<Record<string, string>>;

const loosePaper: Core = { bulk: 'paper-loose', wrap: 'twine' };
const bareFoil: Core = { bulk: 'foil-firm', wrap: 'none' };
const softFoam: Core = { bulk: 'foam-upholstery', wrap: 'cloth' };
const firmFoam: Core = { bulk: 'foam-camping', wrap: 'twine' };

const cores: Readonly<Record<string, Partial<Record<Under, Core>>>> = {
  'wire-figure': { brittle: loosePaper, baked: bareFoil },
  branching: { brittle: loosePaper, baked: bareFoil },
  stuffed: { brittle: { wrap: 'twine' }, baked: bareFoil },
  'bent-pipe': { brittle: loosePaper, baked: bareFoil },
  'dowel-and-ball': { brittle: loosePaper, baked: bareFoil },
  jointed: { brittle: softFoam, baked: bareFoil },
  'object-core': { brittle: softFoam, tough: firmFoam, baked: bareFoil },
  'foil-only': { sets: { wrap: 'tape' } },
  shell: { brittle: loosePaper, baked: bareFoil },
  'board-foam-mesh': { brittle: loosePaper, tough: { bulk: 'foam-camping' }, baked: { bulk: 'foil-firm' } },
  'steel-mesh-foam': { brittle: loosePaper, tough: { bulk: 'foam-camping' }, baked: { bulk: 'foil-firm' } },
};
