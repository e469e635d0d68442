import { Link } from 'react-router';
import { useRefusals } from '../../api/refusals';
import { useAccount } from '../../api/account';
import { plural } from '../../ui/format';
import { KindNoun } from '../../ui/KindNoun';

/** What the network's reviewers refused, with their reasons: it does not show until it is changed. */
export function RefusedSection() {
  const account = useAccount();
  const refused = useRefusals();
  if (refused.length === 0) return null;
  return (
    <section aria-label="Refused by the reviewers" className="my-3 rounded-lg border border-brick bg-sheet">
      <div className="border-b border-line px-3 py-2">
        <h2 className="inline text-[15px]">Refused by the reviewers</h2>{' '}
        <span className="text-ink-3">
          {plural(refused.length, 'item')}; not shown to anybody until changed
        </span>
      </div>
      <ul>
        {refused.map((each) => (
          <li
            key={`${each.kind}${each.itemId}`}
            className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.4fr)_auto] gap-3 border-b border-line-soft px-3 py-1.5 last:border-b-0"
          >
            <span>
              <span className="text-ink-3">
                <KindNoun kind={each.kind} />
              </span>{' '}
              <b className="font-semibold">{each.name}</b>
              <span className="block text-[12px] text-ink-3">
                {[each.campaign, each.adGroup].filter(Boolean).join(' / ')}
              </span>
            </span>
            <span className="text-brick">{each.detail}</span>
            <Link
              aria-label={`Go to ${each.name}`}
              className="font-semibold text-plum underline"
              to={`/${account.id}/plan/structure?focus=${each.kind}:${each.itemId}`}
            >
              Go there
            </Link>
          </li>
        ))}
      </ul>
    </section>
  );
}
