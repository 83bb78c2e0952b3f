import { seededPiece } from '../tests/support/seeded-pieces';
import { asBriefed, Evaluator } from '../src/core/evaluate';
import { fullFindings, ratiosOf, wholePlan, wholeRun, correctedTimes } from '../src/core/piece';

/**
 * Whole dryings of seeded pieces beside the quick answer, region by region, as JSON lines: what
 * `core/piece/quick-against-full.ts` is measured from. tsx scripts/against.ts FROM TO
 */
/** Seconds for which a whole piece is dried: what is not dry by then is known to take longer, no more. */
const looked = 120 * 86400;
const [from = 1, to = 20] = process.argv.slice(2).map(Number);
for (let seed = from; seed < to; seed++) {
  const question = asBriefed(seededPiece(seed));
  const evaluator = new Evaluator();
  const report = evaluator.evaluate(question, { ranges: true }),
    piece = evaluator.piece(question);
  const plan = piece.ok ? wholePlan(piece.value) : piece;
  if (!report.ok || !plan.ok) {
    process.stdout.write(`${JSON.stringify({ seed, why: !plan.ok ? plan.message : 'not worked out' })}\n`);
    continue;
  }
  const run = wholeRun(plan.value);
  while (!run.work(400));
  const { regions } = report.value;
  const found = fullFindings(plan.value.key, run.result(), regions);
  const last = (pick: (r: (typeof found.regions)[number]) => number | null) =>
    found.regions.reduce((m, r) => Math.max(m, pick(r) ?? Infinity), 0);
  const band = {
    low: Math.max(...regions.map((r) => r.throughDryRange?.low ?? 0)),
    nominal: Math.max(...regions.map((r) => r.throughDry ?? 0)),
    high: Math.max(...regions.map((r) => r.throughDryRange?.high ?? 0)),
  };
  const full = last((r) => r.full.through);
  const crack = Math.max(...found.regions.map((r) => r.full.crack));
  const crackBand = {
    low: Math.max(...regions.map((r) => r.crackRange?.low ?? 0)),
    nominal: Math.max(...regions.map((r) => r.crack)),
    high: Math.max(...regions.map((r) => r.crackRange?.high ?? 0)),
  };
  const { build } = question;
  process.stdout.write(
    `${JSON.stringify({
      seed,
      piece: `${build.form.start.kind}, ${build.armature.school.kind}, ${build.brief.clay}, ${build.regions.everywhere.coats.length} coats`,
      through: {
        full,
        band,
        within: full >= band.low && (full <= band.high || (full === Infinity && band.high > looked)),
      },
      crack: { full: crack, band: crackBand, within: crack >= crackBand.low && crack <= crackBand.high },
      regions: found.regions.map((r) => ({
        id: r.id,
        as: regions.find((x) => x.id === r.id)?.as,
        ...Object.fromEntries(correctedTimes.map((k) => [k, ratiosOf(r)[k]])),
        crack: ratiosOf(r).crack,
      })),
    })}\n`,
  );
}
