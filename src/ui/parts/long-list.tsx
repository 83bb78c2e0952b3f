'use client';
import { useVirtualizer, useWindowVirtualizer } from '@tanstack/react-virtual';
import { useLayoutEffect, useRef, useState, type ReactNode, type RefCallback } from 'react';

/** A list of which only what is looked at stands on the page; a short one stands there whole. */
export interface LongListProps<T> {
  readonly items: readonly T[];
  readonly className: string;
  /** Of a row, pixels: what those not drawn yet are taken to be. */
  readonly estimate: number;
  /** Between rows, pixels. */
  readonly gap?: number;
  /** Narrowest column, and the gap between two; a list without has one column. */
  readonly columns?: { readonly least: number; readonly gap: number };
  /** What is looked at now, whenever it changes. */
  readonly onShown?: (items: readonly T[]) => void;
  /** Draws an item as an `li` that is given its place. */
  readonly children: (item: T, index: number, place: Place) => ReactNode;
}

export interface Place {
  readonly ref?: RefCallback<HTMLLIElement>;
  readonly 'data-index'?: number;
  readonly 'aria-setsize'?: number;
  readonly 'aria-posinset'?: number;
}

const few = 60;
/** Before the page has been measured: as on a middling screen. */
const firstLook = { width: 1280, height: 1000 };

export default function LongList<T>(props: LongListProps<T>) {
  const list = useRef<HTMLUListElement>(null);
  const [scroller, setScroller] = useState<HTMLElement | null>(null);
  const long = props.items.length > few;
  useLayoutEffect(() => {
    if (!long) return;
    const look = () => setScroller(scrollerOf(list.current));
    look();
    // A phone that is turned, or a window made small, can scroll as a whole where a part of it did.
    window.addEventListener('resize', look);
    return () => window.removeEventListener('resize', look);
  }, [long]);
  if (!long) return <Short {...props} />;
  return scroller ? (
    <InElement key="element" {...props} list={list} scroller={scroller} />
  ) : (
    <InWindow key="window" {...props} list={list} />
  );
}

function Short<T>({ items, className, onShown, children }: LongListProps<T>) {
  useLayoutEffect(() => onShown?.(items), [items, onShown]);
  return <ul className={className}>{items.map((item, i) => children(item, i, {}))}</ul>;
}

/** The part of the page that scrolls, where it is not the window: one that grows with what is in it does not. */
function scrollerOf(element: HTMLElement | null): HTMLElement | null {
  for (let at = element?.parentElement ?? null; at && at !== document.body; at = at.parentElement)
    if (at.scrollHeight > at.clientHeight + 1 && /auto|scroll/.test(getComputedStyle(at).overflowY)) return at;
  return null;
}

type Inner<T> = LongListProps<T> & { readonly list: React.RefObject<HTMLUListElement | null> };

/** Columns that fit, and how far down what scrolls the list begins. */
function useMeasures<T>({ list, columns }: Inner<T>, scroller: HTMLElement | null) {
  const [measures, setMeasures] = useState({ across: columns ? 4 : 1, margin: 0 });
  useLayoutEffect(() => {
    const ul = list.current;
    if (!ul) return;
    const measure = () => {
      const across = columns
        ? Math.max(1, Math.floor((ul.clientWidth + columns.gap) / (columns.least + columns.gap)))
        : 1;
      const top = ul.getBoundingClientRect().top;
      const margin = Math.round(
        scroller ? top - scroller.getBoundingClientRect().top + scroller.scrollTop : top + window.scrollY,
      );
      setMeasures((m) => (m.across === across && m.margin === margin ? m : { across, margin }));
    };
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(ul);
    if (scroller?.firstElementChild) watch.observe(scroller.firstElementChild);
    return () => watch.disconnect();
  }, [list, columns, scroller]);
  return measures;
}

function InWindow<T>(props: Inner<T>) {
  const { across, margin } = useMeasures(props, null);
  const rows = useWindowVirtualizer({
    count: Math.ceil(props.items.length / across),
    estimateSize: () => props.estimate,
    overscan: 3,
    gap: props.gap ?? 0,
    scrollMargin: margin,
    initialRect: firstLook,
  });
  return <Rows {...props} across={across} margin={margin} rows={rows} />;
}

function InElement<T>(props: Inner<T> & { readonly scroller: HTMLElement }) {
  const { across, margin } = useMeasures(props, props.scroller);
  const rows = useVirtualizer({
    count: Math.ceil(props.items.length / across),
    estimateSize: () => props.estimate,
    overscan: 8,
    gap: props.gap ?? 0,
    scrollMargin: margin,
    getScrollElement: () => props.scroller,
    initialRect: firstLook,
  });
  return <Rows {...props} across={across} margin={margin} rows={rows} />;
}

interface Drawn {
  getVirtualItems(): readonly { readonly index: number; readonly start: number; readonly end: number }[];
  getTotalSize(): number;
  measureElement(element: Element | null): void;
}

function Rows<T>({
  items,
  list,
  className,
  onShown,
  children,
  across,
  margin,
  rows,
}: Inner<T> & { readonly across: number; readonly margin: number; readonly rows: Drawn }) {
  const drawn = rows.getVirtualItems();
  const first = drawn[0],
    last = drawn[drawn.length - 1];
  const from = (first?.index ?? 0) * across,
    until = Math.min(items.length, ((last?.index ?? -1) + 1) * across);
  useLayoutEffect(() => onShown?.(items.slice(from, until)), [items, from, until, onShown]);
  return (
    <ul
      ref={list}
      className={className}
      style={{
        paddingTop: first ? first.start - margin : 0,
        paddingBottom: last ? Math.max(0, rows.getTotalSize() - (last.end - margin)) : rows.getTotalSize(),
      }}
    >
      {items.slice(from, until).map((item, i) => {
        const index = from + i;
        const row = index / across;
        return children(item, index, {
          'aria-setsize': items.length,
          'aria-posinset': index + 1,
          // The first of a row is as high as the row.
          ...(Number.isInteger(row)
            ? { ref: rows.measureElement as RefCallback<HTMLLIElement>, 'data-index': row }
            : {}),
        });
      })}
    </ul>
  );
}
