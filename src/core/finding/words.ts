/** Words that several rules use. */
export const capitalised = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

const lifeStagePhrases: Record<string, string> = {
  'bare armature': 'while bare',
  dry: 'when dry',
  finished: 'when finished',
  'on the road': 'on the road',
  'worn or overhead': 'worn or overhead',
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
  const sides = unique.map((n) => n.replace(/^(left|right) | (left|right)\b|, (left|right)\b/g, ''));
  if (unique.length === 2 && sides[0] === sides[1]) return `${sides[0]!}, left and right`;
  if (unique.length <= 3) return `${unique.slice(0, -1).join(', ')} and ${unique[unique.length - 1]!}`;
  return `${unique.slice(0, 2).join(', ')} and ${unique.length - 2} more`;
}

export const several = (names: readonly string[]): boolean => new Set(names).size > 1;
