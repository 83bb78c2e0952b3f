/** Words that several rules use. */
export const capitalised = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

const lifeStagePhrases: Record<string, string> = {
  'bare armature': 'while bare',
  dry: 'when dry',
  finished: 'when finished',
  'on the road': 'on the road',
  'worn or overhead': 'worn or overhead',
  'under its mould, wet': 'under its mould, wet',
};
export function lifeStagePhrase(name: string): string {
  return lifeStagePhrases[name] ?? `with ${name}`;
}

/** A left and a right of one thing share this, and the first and the seventh of a row; anything else is its own. */
export function pairKey(id: string): string {
  return id.replace(/\b(left|right)\b/g, 'side').replace(/\d+/g, 'n');
}

/** "the forearm, left and right", "the crown", "stringers 1, 2 and 5 more". */
export function placesInWords(names: readonly string[]): string {
  const unique = [...new Set(names)];
  if (unique.length === 1) return unique[0]!;
  const pairs = new Map<string, string[]>();
  for (const n of unique) {
    const either = n.replace(/^(left|right) | (left|right)\b|, (left|right)\b/g, '');
    pairs.set(either, [...(pairs.get(either) ?? []), n]);
  }
  if ([...pairs.values()].every((own) => own.length === 2)) return `${listed([...pairs.keys()])}, left and right`;
  return listed([...pairs].flatMap(([either, own]) => (own.length === 2 ? [`${either} (left and right)`] : own)));
}

function listed(names: readonly string[]): string {
  if (names.length === 1) return names[0]!;
  if (names.length <= 3) return `${names.slice(0, -1).join(', ')} and ${names[names.length - 1]!}`;
  return `${names.slice(0, 2).join(', ')} and ${names.length - 2} more`;
}

export const several = (names: readonly string[]): boolean => new Set(names).size > 1;
