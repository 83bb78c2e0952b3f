import { findClay, type Build } from '../../../core/document';

/** How the clay hardens; one that is not known is taken to dry. */
export function settingOf(build: Build): string {
  const clay = findClay(build, build.brief.clay);
  return clay.ok ? clay.value.setting : 'dries';
}
