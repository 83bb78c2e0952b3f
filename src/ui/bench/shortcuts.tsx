'use client';
import { Modal, Table } from 'react-bootstrap';

export const shortcuts: readonly (readonly [string, string])[] = [
  ['1 – 9', 'go to a station, in the order of the work'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z', 'do it again'],
  ['M', 'next stage of the piece’s life, on Load'],
  ['C', 'bench card: what to do now, and clocks'],
  ['← →', 'on Plan, move the step that has the focus to another day'],
  ['U', 'millimetres or inches'],
  ['P', 'cut list and shopping, to print'],
  ['← → + −', 'turn and zoom the piece, when it has the focus'],
  ['← → ↑ ↓', 'on Form, nudge the mass or joint of a mesh that is picked; with Shift, five times as far'],
  ['Esc', 'put a field back as it was'],
  ['?', 'this list'],
];

export function ShortcutsCard({ open, onClose }: { open: boolean; onClose: () => void }) {
  return (
    <Modal show={open} onHide={onClose} centered aria-labelledby="shortcuts-title">
      <Modal.Header closeButton>
        <Modal.Title id="shortcuts-title" as="h2" className="h5">
          Keys
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <Table size="sm">
          <tbody>
            {shortcuts.map(([k, w]) => (
              <tr key={k}>
                <td>
                  <kbd style={{ background: 'var(--iron)', color: 'var(--paper)' }}>{k}</kbd>
                </td>
                <td>{w}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Modal.Body>
    </Modal>
  );
}
