import clsx from 'clsx';
import type { Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { money, nothing } from '../../ui/format';

/** All who bid, by bid × quality; what one's own price rests on; and the same place at other scores. */
export function Ladder({ auction }: { auction: Schemas['TracedAuction'] }) {
  const account = useAccount();
  const highest = Math.max(...auction.ladder.map((each) => each.rank), 0.01);
  return (
    <>
      <table className="mt-1 w-full text-ink">
        <thead className="sr-only">
          <tr>
            <th>Place</th>
            <th>Who</th>
            <th>Rank</th>
            <th>Bid × quality</th>
            <th>Price</th>
          </tr>
        </thead>
        <tbody>
          {auction.ladder.map((bidder, place) => (
            <tr key={place} className={clsx(bidder.place === null && 'text-ink-3')}>
              <td className="w-7 py-1 font-semibold">{bidder.place ?? nothing}</td>
              <td className={clsx('w-44 py-1 pr-2', bidder.isOwn && 'font-semibold text-plum')}>
                {bidder.name}
                {bidder.headline && (
                  <span className="block text-[12px] text-ink-3">
                    {bidder.headline}
                    {bidder.description && ` · ${bidder.description}`}
                  </span>
                )}
              </td>
              <td className="py-1">
                <span
                  role="img"
                  aria-label={`rank ${bidder.rank}`}
                  className={clsx(
                    'block h-4 rounded-[2px]',
                    bidder.isOwn ? 'bg-plum' : bidder.place === null ? 'bg-sunk' : 'bg-line-strong',
                  )}
                  style={{ width: `${Math.max(2, (100 * bidder.rank) / highest)}%` }}
                />
              </td>
              <td className="w-28 py-1 pl-3 text-right whitespace-nowrap text-ink-2">
                {money(bidder.bid, account)} × {bidder.quality}
              </td>
              <td className="w-40 py-1 pl-3 text-right whitespace-nowrap">
                {bidder.price === null ? (
                  bidder.note
                ) : (
                  <>
                    {money(bidder.price, account)}{' '}
                    <span className="text-ink-3">{bidder.isTop ? 'above' : 'below'}</span>
                  </>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2">{auction.why}</p>
      {auction.atOtherQualities.length > 0 && (
        <table className="mt-2 text-ink">
          <caption className="text-left text-[12px] font-semibold text-ink-2">
            The same place at each quality score
          </caption>
          <tbody>
            <tr>
              {auction.atOtherQualities.map((each) => (
                <th
                  key={each.quality}
                  scope="col"
                  className={clsx('px-2 py-0.5 text-center font-semibold', each.isOwn && 'bg-plum-wash')}
                >
                  {each.quality}
                </th>
              ))}
            </tr>
            <tr>
              {auction.atOtherQualities.map((each) => (
                <td
                  key={each.quality}
                  title={each.withinBid ? undefined : 'more than the bid: the place would be lost'}
                  className={clsx(
                    'border-t border-line px-2 py-0.5 text-center',
                    each.isOwn && 'bg-plum-wash font-semibold',
                    !each.withinBid && 'text-ink-3 line-through',
                  )}
                >
                  {money(each.price, account)}
                </td>
              ))}
            </tr>
          </tbody>
        </table>
      )}
    </>
  );
}
