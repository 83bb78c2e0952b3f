import type { Build } from '../document';
import { findClay } from '../document';

/**
 * What the core is filled and wrapped with under a clay, where a way of building leaves it open: what is baked takes
 * neither paper nor tape.
 */
export function coreUnder(build: Build): Record<string, string> {
  const clay = findClay(build, build.brief.clay);
  if (!clay.ok) return {};
  const core = cores[build.armature.school.kind]?.[clay.value.setting];
  return core ?? {};
}

type Core = Readonly<Record<string, string>>;
const cores: Readonly<Record<string, Readonly<Record<string, Core>>>> = {
  'wire-figure': { bakes: { bulk: 'foil-firm', wrap: 'none' } },
  branching: { bakes: { bulk: 'foil-firm', wrap: 'none' } },
  stuffed: { bakes: { bulk: 'foil-firm', wrap: 'none' } },
  'bent-pipe': { bakes: { bulk: 'foil-firm', wrap: 'none' } },
};
