'use client';
import { useState } from 'react';
import { Button, Modal, Table } from 'react-bootstrap';
import { peelsOut, takeMould, type MouldKind } from '../../../core/mould';
import type { MouldRow } from '../../../core/improve';
import type { Undrawn } from '../../../core/parting';
import { formatDate, formatMass, sensible } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { useMould } from '../../bench/use-mould';
import { settingOf } from './setting';
import { between, roughly } from './takes';

/** Every kind of mould on this piece, side by side; one is taken with a press. */
export function EveryKind() {
  const controller = useController();
  const [open, setOpen] = useState(false);
  const rows = useMould((s) => s.rows);
  const undrawn = useMould((s) => s.parted?.parting.undrawn ?? null);
  const stretch = useMould((s) => s.parted?.parting.stretch ?? null);
  const build = useBench((s) => s.build);
  const units = useBench((s) => s.units);
  const currency = build.materials.currency;
  const setting = settingOf(build);
  return (
    <>
      <Button size="sm" variant="quiet" className="mb-2" onClick={() => setOpen(true)}>
        Compare every kind of mould …
      </Button>
      <Modal
        show={open}
        onHide={() => setOpen(false)}
        size="xl"
        scrollable
        aria-labelledby="kinds-title"
        className="compare"
      >
        <Modal.Header closeButton>
          <Modal.Title id="kinds-title" as="h2">
            Moulds of this piece, side by side
          </Modal.Title>
        </Modal.Header>
        <Modal.Body>
          {!rows ? (
            <p className="muted" role="status">
              Counting what each takes …
            </p>
          ) : (
            <Table size="sm" responsive aria-label="Kinds of mould">
              <thead>
                <tr>
                  <th>Mould</th>
                  <th>Cast in it</th>
                  <th className="n">Mould weighs</th>
                  <th className="n">Costs about</th>
                  <th className="n">Hours</th>
                  <th>All done</th>
                  <th className="n">Cast weighs</th>
                  <th className="n">Size left</th>
                  <th className="n">Good pulls</th>
                  <th>Undercuts</th>
                  <th>
                    <span className="visually-hidden">Take it</span>
                  </th>
                </tr>
              </thead>
              <tbody>
                {rows.map((r) => (
                  <tr key={r.figures.kind.id}>
                    <th scope="row">{r.figures.kind.name}</th>
                    <td>{r.figures.cast.name}</td>
                    <td className="n">{formatMass(weightOf(r), units)}</td>
                    <td className="n">{roughly(r.cost.nominal, currency)}</td>
                    <td className="n">{sensible(r.hours, 2)}</td>
                    <td>{r.ready ? formatDate(r.ready) : 'not within a year'}</td>
                    <td className="n">{between(r.figures.castMass, units)}</td>
                    <td className="n">{sensible(r.figures.left.nominal * 100, 3)} %</td>
                    <td className="n">
                      {sensible(r.pulls.low, 1)} to {sensible(r.pulls.high, 1)}
                    </td>
                    <td>{undercutWords(r, undrawn, stretch, setting)}</td>
                    <td>
                      <Button
                        size="sm"
                        variant="quiet"
                        disabled={r.chosen}
                        aria-label={`${r.chosen ? 'Taken' : 'Take it'}: ${r.figures.kind.name}`}
                        onClick={() => {
                          controller.edit(takeMould(build, r.figures.kind.id));
                          setOpen(false);
                        }}
                      >
                        {r.chosen ? 'Taken' : 'Take it'}
                      </Button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </Table>
          )}
        </Modal.Body>
      </Modal>
    </>
  );
}

function weightOf({ figures: { skin, shell, block } }: MouldRow): number {
  return [skin, shell, block].reduce((sum, p) => sum + (p?.mass ?? 0), 0);
}

function undercutWords(
  { figures: { kind: own, cast } }: MouldRow,
  undrawn: Undrawn | null,
  stretch: { readonly share: number } | null,
  setting: string,
): React.ReactNode {
  const kind: MouldKind = own;
  if (kind.stretches > 0) {
    if (kind.parts !== 'one' || !stretch) return 'gives way';
    return stretch.share <= kind.stretches / 2 ? `stretches ${sensible(stretch.share * 100, 2)} %` : 'is cut open';
  }
  if (kind.parts === 'more') return 'in as many parts as it takes';
  if (!undrawn) return '';
  const share = kind.open ? undrawn.open : kind.parts === 'one' ? undrawn.one : undrawn.two;
  if (share === null) return '';
  if (share <= 0.002) return 'comes off';
  if (peelsOut(kind, cast.id, setting)) return `${sensible(share * 100, 2)} % dug out`;
  return <span className="status-fails">{sensible(share * 100, 2)} % of the face held</span>;
}
