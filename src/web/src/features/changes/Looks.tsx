import { useState } from 'react';
import { useAccount } from '../../api/account';
import { useLooks, type Look } from '../../api/looks';
import { useGo } from '../../app/scope';
import { moment, plural } from '../../ui/format';
import { Button } from '../../ui/Button';
import { Panel } from '../../ui/Panel';
import { ShowCampaignDialog } from './ShowCampaignDialog';

/** How a look stands, as said to whoever looks at the list. */
export const standing = (look: Look) => {
  switch (look.state) {
    case 'open':
      if (look.campaignId != null)
        return look.proposed > 0 ? `${plural(look.proposed, 'proposal')} to decide` : 'open to remarks';
      return look.isMine ? 'waits for a publisher' : 'waits to be looked at';
    case 'returned':
      return `returned by ${look.answeredBy ?? 'somebody'}`;
    case 'published':
      return `published by ${look.answeredBy ?? 'somebody'}`;
    case 'withdrawn':
      return 'taken back';
    case 'closed':
      return 'shown no more';
  }
};

/** Second looks that wait, and the last that are over. */
export function Looks() {
  const account = useAccount();
  const go = useGo();
  const looks = useLooks().data ?? [];
  const [showing, setShowing] = useState(false);
  if (looks.length === 0 && !account.mayChange) return null;
  return (
    <Panel title="Second looks">
      {account.mayChange && (
        <Button className="mb-1.5" onClick={() => setShowing(true)}>
          Show a campaign…
        </Button>
      )}
      {showing && <ShowCampaignDialog onClose={() => setShowing(false)} />}
      <ul className="space-y-1.5">
        {looks.slice(0, 6).map((look) => (
          <li key={look.id}>
            <a
              href={`/${account.id}/ship/changes?look=${look.id}`}
              className="font-semibold hover:underline"
              onClick={(event) => {
                event.preventDefault();
                go('ship/changes', { look: look.id });
              }}
            >
              {look.campaignId == null
                ? `${plural(look.items, 'change')} of ${look.isMine ? 'yours' : look.askedBy}`
                : (look.campaign ?? 'A campaign that is gone')}
            </a>
            <span className="block text-[12px] text-ink-3">
              {moment(look.madeAt)} · {standing(look)}
              {look.remarks > 0 && ` · ${plural(look.remarks, 'remark')}`}
            </span>
          </li>
        ))}
      </ul>
    </Panel>
  );
}
