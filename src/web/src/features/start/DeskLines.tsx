import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { WeightMark } from '../../ui/Marks';
import { ways, type DeskItem } from './useDesk';

/** Something to look after that has no price. */
export interface Todo {
  key: string;
  to: string;
  text: ReactNode;
  why: string;
  /** It stops everything else. */
  isFirst?: boolean;
}

/** A line of it. */
export function TodoLine({ todo: { to, text, why } }: { todo: Todo }) {
  return (
    <li className="border-b border-line-soft">
      <Link to={to} className="grid grid-cols-[18px_minmax(0,1fr)] gap-2 rounded-sm px-1 py-2 hover:bg-paper">
        <span />
        <span>
          <b className="block font-semibold">{text}</b>
          <span className="text-ink-2">{why}</span>
        </span>
      </Link>
    </li>
  );
}

/** Something worth doing, with the money in it and its way. */
export function DeskLine({ item, at }: { item: DeskItem; at: (path: string) => string }) {
  const { to, way } = ways[item.topic](item);
  return (
    <li className="grid grid-cols-[18px_minmax(0,1fr)_104px_auto] items-center gap-2 border-b border-line-soft px-1 py-2 max-[1099px]:grid-cols-[18px_minmax(0,1fr)]">
      <WeightMark weight={item.weight} />
      <span className="min-w-0">
        <b className="block font-semibold">{item.title}</b>
        <span className="text-ink-2">{item.says}</span>
      </span>
      <span className="text-right text-ink-2 max-[1099px]:col-start-2 max-[1099px]:text-left">
        {item.worth ?? ''}
      </span>
      <Link
        to={at(to)}
        className="min-w-[132px] rounded-sm border border-line-strong bg-sheet px-2.5 py-1 text-center font-semibold whitespace-nowrap hover:bg-paper max-[1099px]:col-start-2 max-[1099px]:w-fit"
        aria-label={`${way}: ${item.title}`}
      >
        {way}
      </Link>
    </li>
  );
}
