'use client';
import { bulkList, joinKinds, stockList, stocks, wrapList } from '../../../core/catalogue';
import { Button } from 'react-bootstrap';
import { chosenFigures, sizeFigureAgain, type School, type SchoolField } from '../../../core/school';
import { useBench, useController } from '../../bench/context';
import { ChoiceAt, NumberAt, YesNoAt } from '../../parts/fields';

/** A school's own figures, drawn from what it says it has. */
const parameter = (key: string) => ['armature', 'school', 'parameters', key] as const;
export const sizesOf = (stock: string) => (stocks.get(stock)?.sizes ?? []).map((s) => ({ id: s.id, name: s.label }));

const boards = stockList.filter((s) => s.sizes.every((z) => z.section.shape === 'flat' && z.section.width === 1));
const shaped = (...shapes: readonly string[]) =>
  stockList.filter((s) => !boards.includes(s) && s.sizes.some((z) => shapes.includes(z.section.shape)));
const stocksFrom = {
  wire: shaped('round'),
  bar: shaped('round', 'square-tube', 'flat'),
  upright: shaped('tube', 'square-tube', 'round'),
  board: boards,
} as const;
const cores = bulkList.filter((b) => b.id !== 'hot-glue');

/** A stock and its size move together: a stock that lacks the size takes its middle one. */
function StockPair({
  field,
  stock,
  size,
}: {
  field: Extract<SchoolField, { kind: 'stock' }>;
  stock: string;
  size: string;
}) {
  const nearest = (id: string) => {
    const list = stocks.get(id)?.sizes ?? [];
    return list.some((s) => s.id === size) ? size : (list[Math.floor(list.length / 2)]?.id ?? size);
  };
  const sizes = sizesOf(stock);
  return (
    <div className="pairs">
      <ChoiceAt
        label={field.label}
        path={parameter(field.key)}
        fallback={stock}
        choices={stocksFrom[field.from]}
        also={(id) => [{ path: parameter(field.size), value: nearest(id) }]}
      />
      <ChoiceAt
        label={`Size of the ${field.label.toLowerCase()}`}
        path={parameter(field.size)}
        fallback={size}
        choices={size === '' ? [{ id: '', name: 'as the form asks' }, ...sizes] : sizes}
      />
    </div>
  );
}

function Field({ field, figures }: { field: SchoolField; figures: Readonly<Record<string, unknown>> }) {
  if (field.kind === 'heading') return <h3>{field.label}</h3>;
  const value = figures[field.key];
  const path = parameter(field.key);
  const text = String(value ?? '');
  switch (field.kind) {
    case 'stock':
      return <StockPair field={field} stock={text} size={String(figures[field.size] ?? '')} />;
    case 'bulk':
      return <ChoiceAt label={field.label} path={path} fallback={text} choices={cores} />;
    case 'wrap':
      return <ChoiceAt label={field.label} path={path} fallback={text} choices={wrapList} />;
    case 'join':
      return <ChoiceAt label={field.label} path={path} fallback={text} choices={joinKinds} />;
    case 'choice':
      return <ChoiceAt label={field.label} path={path} fallback={text} choices={field.choices} />;
    case 'yes-no':
      return <YesNoAt label={field.label} path={path} fallback={value === true} />;
    default:
      return (
        <NumberAt
          label={field.label}
          path={path}
          kind={field.kind}
          fallback={typeof value === 'number' ? value : 0}
          {...(field.hint ? { hint: field.hint } : {})}
        />
      );
  }
}

/** Where the armature is sized to carry and this figure was set: one press leaves it to be chosen again. */
function SizedAgain({ field }: { field: SchoolField }) {
  const controller = useController();
  const { school, sizing } = useBench((s) => s.build.armature);
  if (sizing !== 'to-carry' || field.kind === 'heading') return null;
  const key = field.kind === 'stock' ? field.size : field.key;
  if (!chosenFigures(school.kind).has(key) || school.parameters[key] === undefined) return null;
  return (
    <Button
      size="sm"
      variant="quiet"
      className="mb-2"
      aria-label={`Size it again: ${field.label}`}
      onClick={() => controller.edit(sizeFigureAgain(key, field.label))}
    >
      Set by hand. Size it again
    </Button>
  );
}

/** Stock pairs take a row of their own, all else stands two to a row. */
export function SchoolFields({ school }: { school: School<never> }) {
  const given = useBench((s) => s.build.armature.school.parameters);
  const chosen = useBench((s) => s.report?.sizing.sizes.parameters);
  const read = school.parameters.safeParse({ ...chosen, ...given });
  const figures = (read.success ? read.data : school.parameters.parse({})) as Readonly<Record<string, unknown>>;
  const rows: SchoolField[][] = [];
  for (const field of school.fields) {
    const last = rows[rows.length - 1];
    const alone = field.kind === 'heading' || field.kind === 'stock';
    const lastAlone = last?.[0]?.kind === 'heading' || last?.[0]?.kind === 'stock';
    if (last && !alone && !lastAlone) last.push(field);
    else rows.push([field]);
  }
  return (
    <>
      {rows.map((row) => {
        const first = row[0]!;
        const key = first.kind === 'heading' ? first.label : first.key;
        const fields = row.map((f) => (
          <div key={f.kind === 'heading' ? f.label : f.key}>
            <Field field={f} figures={figures} />
            <SizedAgain field={f} />
          </div>
        ));
        return first.kind === 'heading' || first.kind === 'stock' ? (
          <div key={key}>{fields}</div>
        ) : (
          <div key={key} className="pairs">
            {fields}
          </div>
        );
      })}
    </>
  );
}
