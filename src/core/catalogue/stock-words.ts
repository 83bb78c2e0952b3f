import { failure, parseLength, success, type Result } from '../quantity';
import type { SectionShape, Stock, StockSize } from './schema';
import { stockList } from './stock';

/** Stock as a maker writes it: "3/16 in annealed aluminium x3, splinted with nails", "1/2 pipe", "M6 threaded rod". */
export interface StockText {
  readonly stock: string;
  readonly size: string;
  readonly strands: number;
  readonly bonded: boolean;
}

/** Words people use, by stock; the first that all are there wins, the more particular ones standing first. */
const words: readonly (readonly [RegExp, string])[] = [
  [/half.?hard/, 'aluminium-half-hard'],
  [/alumini?um|\balu?\b/, 'aluminium-annealed'],
  [/copper/, 'copper-annealed'],
  [/brass/, 'brass-rod'],
  [/thread|\bm\d/, 'threaded-rod'],
  [/stainless/, 'stainless-rod'],
  [/galvani[sz]ed|\bgalv/, 'steel-galvanised'],
  [/black|binding/, 'steel-black'],
  [/hard.?drawn|spring|piano|music/, 'steel-hard'],
  [/pvc|plastic pipe/, 'pvc-pipe'],
  [/square|box section/, 'steel-square-tube'],
  [/pipe/, 'steel-pipe'],
  [/dowel|hardwood/, 'hardwood-dowel'],
  [/bamboo|skewer|cane/, 'bamboo'],
  [/batten|softwood|timber|pine/, 'softwood-batten'],
  [/steel|iron|rod|bar/, 'mild-steel'],
  [/wire/, 'aluminium-annealed'],
];

const numbers: Readonly<Record<string, number>> = {
  single: 1,
  doubled: 2,
  double: 2,
  twin: 2,
  tripled: 3,
  triple: 3,
  quadrupled: 4,
  quadruple: 4,
};

/** Reads the text; `known` are the stocks there are, the user's own included. The message says what could not be read. */
export function parseStock(text: string, known: readonly Stock[] = stockList): Result<StockText> {
  let rest = ` ${text.trim().toLowerCase().replace(/×/g, 'x').replace(/[″”“]/g, ' in ').replace(/"/g, ' in ')} `;
  if (rest.trim() === '' || rest.length > 140)
    return failure('not-a-stock', text.slice(0, 60), 'Write a size and a stock, such as 3 mm annealed aluminium x2.');
  const bonded = /splint|glued|bonded|epox/.test(rest);
  rest = rest.replace(/,?\s*(splint|glued|bonded|epox)[a-z ]*(with [a-z ]+)?/g, ' ');
  let strands = 1;
  // An x between two figures is a section, 45 x 95; one that stands by itself, or after M6, counts strands.
  const times = /(?<!\b\d{1,3} ?)\bx ?(\d{1,2})(?![\d./]|\s*(mm|in|cm)\b)|\b(\d{1,2}) (strands?|wires)\b/.exec(rest);
  if (times) {
    strands = Number(times[1] ?? times[3]);
    rest = rest.replace(times[0], ' ');
  }
  for (const [word, n] of Object.entries(numbers)) {
    if (!new RegExp(`\\b${word}\\b`).test(rest)) continue;
    strands = n;
    rest = rest.replace(new RegExp(`\\b${word}\\b`), ' ');
  }
  if (strands < 1 || strands > 24) return failure('too-many-strands', text, 'Between 1 and 24 strands.');
  const own = known.find((s) => rest.includes(s.name.toLowerCase()));
  const id = own?.id ?? words.find(([w]) => w.test(rest))?.[1];
  const stock = known.find((s) => s.id === id);
  if (!stock)
    return failure(
      'unknown-stock',
      text,
      'Which stock? For example annealed aluminium, galvanised steel, pipe, dowel, bamboo.',
    );
  const size = findSize(stock, rest.trim());
  return size.ok ? success({ stock: stock.id, size: size.value.id, strands, bonded }) : size;
}

function findSize(stock: Stock, rest: string): Result<StockSize> {
  const offers = `${stock.name} comes in ${stock.sizes
    .slice(0, 8)
    .map((s) => s.label)
    .join(', ')}${stock.sizes.length > 8 ? ' and more' : ''}.`;
  const pair = /(\d+(?:\.\d+)?) ?x ?(\d+(?:\.\d+)?)/.exec(rest);
  if (pair) {
    const found = stock.sizes.find((s) => s.id === `${pair[1]}x${pair[2]}mm` || s.id === `${pair[2]}x${pair[1]}mm`);
    return found ? success(found) : failure('unknown-size', rest, offers);
  }
  const thread = /\bm ?(\d{1,2})\b/.exec(rest);
  if (thread && stock.id === 'threaded-rod') {
    const found = stock.sizes.find((s) => s.id === `m${thread[1]}`);
    return found ? success(found) : failure('unknown-size', rest, offers);
  }
  const quantity =
    /((?:\d+[ -])?\d+\/\d+|\d+(?:[.,]\d+)?) ?(mm|cm|inch(?:es)?|in|awg|swg|ga|gauge)?\b|\b(awg|swg) ?(\d+)/.exec(rest);
  if (!quantity) return failure('no-size', rest, `What size? ${offers}`);
  const nominal = (quantity[1] ?? '').replace(/[/ ]/g, '-');
  const named = stock.sizes.find((s) => s.section.shape === 'tube' && s.id === nominal);
  if (named && quantity[2] !== 'mm') return success(named);
  const unit = quantity[2] ?? quantity[3] ?? '';
  const length = parseLength(
    quantity[3]
      ? `${quantity[3]} ${quantity[4]}`
      : `${quantity[1]} ${unit || (quantity[1]?.includes('/') ? 'in' : 'mm')}`,
  );
  if (!length.ok) return failure(length.code, rest, length.message);
  const near = [...stock.sizes].sort((a, b) => off(a, length.value) - off(b, length.value))[0];
  return near && off(near, length.value) <= 0.04 * length.value
    ? success(near)
    : failure('unknown-size', rest, `There is no ${quantity[0].trim()}. ${offers}`);
}

const acrossOf = (s: SectionShape) => ('diameter' in s ? s.diameter : s.width);
const off = (s: StockSize, wanted: number) => Math.abs(acrossOf(s.section) - wanted);

/** The same in words, as it is read back. */
export function stockWords(t: StockText, known: readonly Stock[] = stockList): string {
  const stock = known.find((s) => s.id === t.stock);
  const size = stock?.sizes.find((s) => s.id === t.size);
  // What changes most stands first: a narrow field shows size and strands.
  return `${size?.label ?? t.size}${t.strands > 1 ? ` x${t.strands}` : ''} ${stock?.name ?? t.stock}${t.bonded ? ', splinted' : ''}`;
}
