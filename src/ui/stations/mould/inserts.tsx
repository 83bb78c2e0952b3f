'use client';
import { useState } from 'react';
import { Button, Form, Table } from 'react-bootstrap';
import { seatOf, setDeep, usualInserts } from '../../../core/mould';
import { formatLength, type Range } from '../../../core/quantity';
import { useBench, useController } from '../../bench/context';
import { NumberAt, TextAt } from '../../parts/fields';

/** What is set into a cast and does not shrink with it, and the seats that are made for it in the master. */
export function Inserts({ left, girth }: { left: Range; girth: number | undefined }) {
  const controller = useController();
  const units = useBench((s) => s.units);
  const inserts = useBench((s) => s.build.mould.inserts);
  const usual = usualInserts(girth);
  const [which, setWhich] = useState(usual[0]!.id);
  const add = () => {
    const chosen = usual.find((u) => u.id === which)!;
    const taken = new Set(inserts.map((i) => i.id));
    let id = chosen.id;
    for (let n = 2; taken.has(id); n++) id = `${chosen.id}-${n}`;
    controller.edit({
      label: `Set in: ${chosen.name}`,
      changes: [{ path: ['mould', 'inserts', inserts.length], value: { ...chosen, id } }],
    });
  };
  return (
    <>
      <h3>Set into the cast</h3>
      {inserts.length > 0 && (
        <Table size="sm" aria-label="What is set into the cast">
          <thead>
            <tr>
              <th>What</th>
              <th>It measures</th>
              <th>One to the next</th>
              <th className="n">Sculpt</th>
              <th>
                <span className="visually-hidden">Take away</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {inserts.map((own, i) => {
              const seat = seatOf(own, left);
              return (
                <tr key={own.id}>
                  <td>
                    <TextAt label="Name" path={['mould', 'inserts', i, 'name']} />
                  </td>
                  <td>
                    <NumberAt label="Across" path={['mould', 'inserts', i, 'size']} kind="length" />
                  </td>
                  <td>
                    <NumberAt label="Apart" path={['mould', 'inserts', i, 'apart']} kind="length" optional />
                  </td>
                  <td className="n">
                    {formatLength(seat.size.nominal, units)}
                    {seat.apart && `, ${formatLength(seat.apart.nominal, units)} apart`}
                  </td>
                  <td>
                    <Button
                      size="sm"
                      variant="quiet"
                      aria-label={`Take away ${own.name}`}
                      onClick={() =>
                        controller.edit({
                          label: `Not set in: ${own.name}`,
                          changes: [{ path: ['mould', 'inserts', i], value: undefined }],
                        })
                      }
                    >
                      Take away
                    </Button>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Table>
      )}
      <div className="d-flex align-items-end gap-2 mb-2">
        <div>
          <Form.Label htmlFor="set-in" className="mb-1">
            Eyes, teeth, hinges, sockets
          </Form.Label>
          <Form.Select id="set-in" size="sm" value={which} onChange={(e) => setWhich(e.target.value)}>
            {usual.map((u) => (
              <option key={u.id} value={u.id}>
                {u.name}
              </option>
            ))}
          </Form.Select>
        </div>
        <Button size="sm" variant="quiet" onClick={add}>
          Set it in
        </Button>
      </div>
      <p className="small">
        They do not shrink: their seats, and the way from one to the next, are sculpted larger by as much as the cast
        loses. What is pulled or levered sits {setDeep} times as deep as it is across, roughened; in a skin or a thin
        wall it is bedded in a patch of cloth or a lump of the same material.
      </p>
    </>
  );
}
