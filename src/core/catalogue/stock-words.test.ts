import { parseStock, stockList, stockWords } from '.';

describe('stock as it is written', () => {
  test.each([
    ['3/16 in annealed aluminium x3, splinted with nails', 'aluminium-annealed', '4.8mm', 3, true],
    ['3 mm galvanised steel', 'steel-galvanised', '3mm', 1, false],
    ['doubled 2 mm aluminum wire', 'aluminium-annealed', '2mm', 2, false],
    ['8 AWG aluminium x2', 'aluminium-annealed', 'awg-8', 2, false],
    ['1/2 pipe', 'steel-pipe', '1-2', 1, false],
    ['1 1/4 in pipe', 'steel-pipe', '1-1-4', 1, false],
    ['M6 threaded rod', 'threaded-rod', 'm6', 1, false],
    ['40x3 square tube', 'steel-square-tube', '40x3mm', 1, false],
    ['45 x 95 batten x2', 'softwood-batten', '45x95mm', 2, false],
    ['16 mm dowel', 'hardwood-dowel', '16mm', 1, false],
    ['3 strands of 1.5 mm copper glued', 'copper-annealed', '1.5mm', 3, true],
  ])('%s', (text, stock, size, strands, bonded) => {
    const read = parseStock(text);
    if (!read.ok) throw new Error(read.message);
    expect(read.value).toMatchObject({ stock, strands, bonded });
    const across = (id: string) => {
      const s = stockList.find((x) => x.id === stock)?.sizes.find((z) => z.id === id)?.section;
      return s && ('diameter' in s ? s.diameter : s.width);
    };
    expect(across(read.value.size)).toBeCloseTo(across(size)!, 4);
  });
  test.each([
    ['', /size and a stock/],
    ['3 mm', /Which stock/],
    ['aluminium', /What size/],
    ['47 mm aluminium', /no 47 mm/],
    ['8 gauge aluminium', /AWG or SWG/],
    ['2 mm copper x99', /24 strands/],
  ])('%s is refused in words', (text, why) => {
    const read = parseStock(text);
    expect(read.ok ? '' : read.message).toMatch(why);
  });
  test('every size of every stock is read back from its own words', () => {
    for (const stock of stockList) {
      for (const size of stock.sizes.filter((s) => s.section.shape === 'round')) {
        const read = parseStock(stockWords({ stock: stock.id, size: size.id, strands: 2, bonded: true }));
        expect(read).toMatchObject({ ok: true, value: { stock: stock.id, strands: 2, bonded: true } });
      }
    }
  });
});
