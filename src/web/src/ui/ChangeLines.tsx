import clsx from 'clsx';
import type { ReactNode } from 'react';
import type { Schemas } from '../api/client';
import { KindNoun } from './KindNoun';
import { ChangeFlag, Measure } from './Marks';
import { Tick } from './Tick';

export interface LineTicks {
  has: (line: Schemas['ChangeLine']) => boolean;
  toggle: (line: Schemas['ChangeLine']) => void;
  active: number;
}

/** Items before and after, field by field. */
export function ChangeLines({
  lines,
  showPlace,
  ticks,
  picture,
}: {
  lines: readonly Schemas['ChangeLine'][];
  showPlace?: boolean;
  /** Rows that can be ticked, and which one is under the keyboard. */
  ticks?: LineTicks;
  /** How a new ad is shown. */
  picture?: (ad: Schemas['SeenAd']) => ReactNode;
}) {
  return (
    <table className="w-full table-fixed border-collapse text-left">
      <colgroup>
        {ticks && <col className="w-7" />}
        <col className="w-6" />
        <col className="w-[34%]" />
        <col className="w-[15%]" />
        <col />
        <col />
      </colgroup>
      <thead>
        <tr className="border-b border-line-strong text-[11.5px] text-ink-3">
          {ticks && <th scope="col" aria-label="Ticked" />}
          <th scope="col" className="w-6 py-1" aria-label="Change" />
          <th scope="col" className="py-1 pr-3 font-semibold">
            Item
          </th>
          <th scope="col" className="py-1 pr-3 font-semibold">
            Field
          </th>
          <th scope="col" className="py-1 pr-3 font-semibold">
            Before
          </th>
          <th scope="col" className="py-1 font-semibold">
            After
          </th>
        </tr>
      </thead>
      <tbody>
        {lines.map((line, place) => (
          <Line
            key={`${line.kind}${line.id}`}
            line={line}
            showPlace={showPlace}
            ticks={ticks}
            picture={picture}
            active={ticks?.active === place}
          />
        ))}
      </tbody>
    </table>
  );
}

interface LineProps {
  line: Schemas['ChangeLine'];
  showPlace?: boolean;
  ticks?: LineTicks;
  picture?: (ad: Schemas['SeenAd']) => ReactNode;
  active: boolean;
}

function Line({ line, showPlace, ticks, picture, active }: LineProps) {
  // A copy is told by what it has otherwise than its original; one that is drawn, in its picture.
  const compared = line.change === 'edited' || (line.copyOf != null && !line.ad);
  const differences = compared ? line.differences : [];
  const place = showPlace
    ? [line.campaign, line.adGroup].filter((name) => name && name !== line.name).join(' / ')
    : '';
  const rows = Math.max(1, differences.length);
  return Array.from({ length: rows }, (_, number) => {
    const difference = differences[number];
    return (
      <tr
        key={number}
        data-active={active || undefined}
        className={clsx(
          'align-top',
          number === rows - 1 && 'border-b border-line-soft',
          ticks?.has(line) && 'bg-plum-wash',
          line.isHeld && 'text-ink-3',
          active &&
            'group-focus/list:[&>td]:bg-tide-wash group-focus/list:[&>td:first-child]:shadow-[inset_3px_0_0_var(--color-tide)]',
        )}
      >
        {number === 0 && (
          <>
            {ticks && (
              <td rowSpan={rows} className="py-1 pl-1.5">
                <Tick
                  label={`Tick ${line.name}`}
                  checked={ticks.has(line)}
                  onChange={() => ticks.toggle(line)}
                />
              </td>
            )}
            <td rowSpan={rows} className="py-1">
              <ChangeFlag change={line.change} />
            </td>
            <td rowSpan={rows} className="py-1 pr-3 break-words">
              <span className="text-ink-3">
                <KindNoun kind={line.kind} />
              </span>{' '}
              <b className="font-semibold">{line.name}</b>
              {place && <div className="text-[12px] text-ink-3">{place}</div>}
              {line.copyOf != null && (
                <div className="text-[12px] text-ink-3">
                  {line.copyOf === line.name ? 'a copy' : `a copy of ${line.copyOf}`}
                </div>
              )}
              {line.isHeld && <div className="font-semibold text-ochre">held back</div>}
              {line.reviewReason && <div className="text-brick">Refused last time: {line.reviewReason}</div>}
            </td>
          </>
        )}
        {difference ? (
          <>
            <td className="py-1 pr-3 text-ink-2">{difference.field}</td>
            <td className="py-1 pr-3 break-words text-ink-3">{difference.before ?? '—'}</td>
            <td className="py-1 break-words">
              <After difference={difference} />
            </td>
          </>
        ) : (
          <td colSpan={3} className="py-1 text-ink-2">
            {line.ad && picture ? (
              <>
                {picture(line.ad)}
                <span className="text-[12.5px]">{besides(line)}</span>
              </>
            ) : line.change === 'removed' ? (
              'removed'
            ) : line.copyOf != null ? (
              'as the original'
            ) : (
              summary(line)
            )}
            {tooLong(line).map((text) => (
              <span key={text.text} className="block">
                {text.text} <Measure length={text.length} longest={text.longest} />
              </span>
            ))}
          </td>
        )}
      </tr>
    );
  });
}

/** What becomes of a field; texts that the network limits are measured. */
function After({ difference }: { difference: Schemas['FieldDifference'] }) {
  const texts = difference.lengths ?? [];
  if (texts.length === 0) return difference.after ?? '—';
  return texts.map((text, place) => (
    <span key={place} className="block">
      {text.text} <Measure length={text.length} longest={text.longest} />
    </span>
  ));
}

/** What of a new ad its picture does not show, such as its device. */
function besides(line: Schemas['ChangeLine']) {
  return line.differences
    .filter((difference) => !difference.inPicture)
    .filter((difference) => line.copyOf != null || (difference.after && difference.field !== 'State'))
    .map((difference) =>
      line.copyOf != null
        ? `${difference.field}: ${difference.after ?? 'none'} (was ${difference.before ?? 'none'})`
        : `${difference.field}: ${difference.after ?? ''}`,
    )
    .join(' · ');
}

/** A new item in one line. */
function summary(line: Schemas['ChangeLine']) {
  const said = line.differences
    .filter(
      (difference) => difference.after && difference.after !== line.name && difference.field !== 'State',
    )
    .map(
      (difference) =>
        `${difference.field.charAt(0).toLowerCase()}${difference.field.slice(1)} ${difference.after ?? ''}`,
    );
  return ['new', ...said].join(', ');
}

/** The texts of a new item that are too long, each on a line of its own. */
function tooLong(line: Schemas['ChangeLine']) {
  return line.differences.flatMap((difference) =>
    (difference.lengths ?? []).filter((text) => text.length > text.longest),
  );
}
