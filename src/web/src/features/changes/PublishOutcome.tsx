import { useQuery } from '@tanstack/react-query';
import { answer, api, type Schemas } from '../../api/client';
import { useAccount } from '../../api/account';
import { moment, whole } from '../../ui/format';
import { KindNoun } from '../../ui/KindNoun';
import { Panel } from '../../ui/Panel';

type Outcome = Schemas['UnpublishedItem']['outcome'];

const outcomes: { outcome: Outcome; title: string; tone: string }[] = [
  { outcome: 'refused', title: 'Refused', tone: 'text-brick' },
  { outcome: 'changedSince', title: 'Changed on the network meanwhile', tone: 'text-ochre' },
  { outcome: 'leftOut', title: 'Left out', tone: 'text-ink-2' },
];

/** How a publish went, and what is not on the network as it was to be, with the reasons. */
export function PublishOutcome({ publish, fresh }: { publish: Schemas['PublishSummary']; fresh: boolean }) {
  const account = useAccount();
  const kept = publish.refused + publish.changedSince + publish.leftOut;
  const unpublished = useQuery({
    queryKey: [account.id, 'unpublished', publish.id],
    enabled: kept > 0,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/publishes/{publishId}/unpublished', {
          params: { path: { accountId: account.id, publishId: publish.id } },
        }),
      ),
  });
  return (
    <Panel
      title={fresh && publish.state === 'done' ? 'Published' : `Last publish, ${moment(publish.madeAt)}`}
    >
      <p role={fresh ? 'status' : undefined}>
        <b className="font-semibold">{whole(publish.accepted)}</b> of {whole(publish.total)} accepted
        {publish.refused > 0 && <span className="text-brick">, {whole(publish.refused)} refused</span>}
        {publish.changedSince > 0 && (
          <span className="text-ochre">, {whole(publish.changedSince)} changed on the network meanwhile</span>
        )}
        {publish.leftOut > 0 && `, ${whole(publish.leftOut)} left out`}
        {publish.state === 'abandoned' && `, ${whole(publish.left)} given up`}. Ads and keywords are reviewed,
        mostly within a working day.
      </p>
      {publish.problem && <p className="mt-1 text-ink-2">{publish.problem}</p>}
      {outcomes.map(({ outcome, title, tone }) => {
        const items = unpublished.data?.filter((item) => item.outcome === outcome) ?? [];
        if (items.length === 0) return null;
        return (
          <div key={outcome} className="mt-2">
            <h4 className="font-body text-[12px] font-semibold text-ink-2">{title}</h4>
            <ul className="mt-1 space-y-1">
              {items.map((item) => (
                <li key={`${item.kind}${item.id}`}>
                  <span className="text-ink-3">
                    <KindNoun kind={item.kind} />
                  </span>{' '}
                  <b className="font-semibold">{item.name}</b>
                  <div className={tone}>{item.reason}</div>
                </li>
              ))}
            </ul>
          </div>
        );
      })}
    </Panel>
  );
}
