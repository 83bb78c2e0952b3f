import { failure, success, type Failure, type Result } from '../quantity';

/** An outline template as it arrives: SVG text that draws, and does nothing else. */
const largestOutline = 2_000_000;

const refused: readonly (readonly [RegExp, string])[] = [
  [/<\s*script/i, 'it holds a script'],
  [/\son[a-z]+\s*=/i, 'it holds something to run when it is touched or loaded'],
  [/javascript\s*:/i, 'it holds a script'],
  [/<\s*(foreignObject|iframe|embed|object)\b/i, 'it holds something other than a drawing'],
  [/<!\s*ENTITY/i, 'it defines its own words, which are not read'],
  [/(?:href|src)\s*=\s*["'](?!#)/i, 'it points outside itself'],
  [/@import|url\s*\(\s*["']?(?!#)/i, 'it points outside itself'],
];

/** Says why an SVG is not taken, and on which line; null when it may be read for its lines. */
export function checkOutline(text: string): Failure | null {
  if (text.length > largestOutline) return failure('too-large', 'the file', 'an outline is at most 2 MB');
  if (!/<\s*svg[\s>]/i.test(text)) return failure('not-an-outline', 'the file', 'it is no SVG drawing');
  const words = ownWordsAt(text);
  if (words !== null)
    return failure('not-a-drawing', lineAt(text, words), 'it defines its own words, which are not read');
  for (const [pattern, why] of refused) {
    const found = pattern.exec(text);
    if (found) return failure('not-a-drawing', lineAt(text, found.index), why);
  }
  return null;
}

const lineAt = (text: string, index: number) => `line ${text.slice(0, index).split('\n').length}`;

/** Where a document type opens a list of its own; each declaration is looked through once, however many there are. */
function ownWordsAt(text: string): number | null {
  const declaration = /<!\s*DOCTYPE/gi;
  for (let found = declaration.exec(text); found; found = declaration.exec(text)) {
    let end = declaration.lastIndex;
    while (end < text.length && text[end] !== '>' && text[end] !== '[') end++;
    if (text[end] === '[') return found.index;
    declaration.lastIndex = end;
  }
  return null;
}

/** Lines as they are kept: thinned to what can be seen, three hundred of four thousand points at most. */
export function outlineLines(lines: readonly (readonly number[])[]): Result<number[][]> {
  const kept = lines.filter((l) => l.length >= 4 && l.every(Number.isFinite));
  if (kept.length === 0) return failure('empty', 'the drawing', 'it holds no lines');
  if (kept.length > 300)
    return failure('too-large', 'the drawing', `it holds ${kept.length} lines; at most 300 are read`);
  return success(kept.map((l) => thinned(l, 4000)));
}

function thinned(line: readonly number[], most: number): number[] {
  const points = line.length / 2;
  const every = Math.max(1, Math.ceil(points / most));
  const out: number[] = [];
  for (let i = 0; i < points; i += every) out.push(line[i * 2]!, line[i * 2 + 1]!);
  if ((points - 1) % every !== 0) out.push(line[(points - 1) * 2]!, line[(points - 1) * 2 + 1]!);
  return out;
}
