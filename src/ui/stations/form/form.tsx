'use client';
import { Table } from 'react-bootstrap';
import { bustMeasuresSchema } from '../../../core/form';
import { formatLength, formatVolume } from '../../../core/quantity';
import { useBench } from '../../bench/context';
import { NumberAt } from '../../parts/fields';
import { StationPanel } from '../../parts/judgement';
import { SizeField } from '../brief/brief';

const measures: readonly (readonly [string, string])[] = [
  ['headHeight', 'Head, chin to crown'], ['headBreadth', 'Head, ear to ear'], ['headDepth', 'Head, brow to nape'], ['headForward', 'Head hangs forward'],
  ['neckGirth', 'Neck, round'], ['neckLength', 'Neck showing'], ['shoulderBreadth', 'Shoulders, across'], ['chestDepth', 'Chest, front to back'],
  ['chestHeight', 'Chest, edge to collar'], ['standHeight', 'Bare upright below'],
];

export default function FormStation() {
  const units = useBench((s) => s.units);
  const report = useBench((s) => s.report);
  const defaults: Readonly<Record<string, number>> = bustMeasuresSchema.parse({});
  return (
    <StationPanel
      station="form" title="The form"
      how={<>
        <p>The bust is four masses that melt into one another: shoulders and chest, neck, skull, face and jaw. Their joint surface is sampled on a grid of small cubes; each cube the surface passes through counts for the share inside, so the volume is good to well under a cube.</p>
        <p className="mb-0">The core is the outer face moved inward by the thickness of the clay. Hair, collar, ears and features are left out: they belong to the modelling.</p>
      </>}
    >
      <h3>Measures, at life size</h3>
      <SizeField />
      <div className="pairs">
        {measures.map(([key, label]) => <NumberAt key={key} label={label} path={['form', 'start', 'measures', key]} kind="length" fallback={defaults[key]} />)}
      </div>
      <p className="muted small">The eye line is half way up the head. A head is about two thirds as wide as it is high.</p>
      {report && (
        <>
          <h3>What the picture shows</h3>
          <Table size="sm" aria-label="Regions of the form">
            <thead><tr><th>Region</th><th className="n">Face</th><th className="n">Clay</th><th className="n">Bulk</th></tr></thead>
            <tbody>
              {report.regions.map((r) => (
                <tr key={r.id}><td>{r.name}</td><td className="n">{Math.round(r.area * 1e4)} cm²</td><td className="n">{formatVolume(r.clayVolume, units)}</td><td className="n">{formatVolume(r.bulkVolume, units)}</td></tr>
              ))}
            </tbody>
          </Table>
          <p className="muted small mt-2 mb-0">Overall {formatLength(report.size.width, units)} wide, {formatLength(report.size.depth, units)} deep, {formatLength(report.size.height, units)} high from the board.</p>
        </>
      )}
    </StationPanel>
  );
}
