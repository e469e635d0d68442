import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { answer, api, ApiProblem, type Schemas } from '../../api/client';
import { tell } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { TextField } from '../../ui/Field';
import { moment, plural, whole } from '../../ui/format';
import { Progress } from '../../ui/Progress';
import { WeightMark } from '../../ui/Marks';

/** An account that exists on a network is taken over: opened by its code, chosen, read. */
export function ConnectAccount({
  onClose,
  onMade,
}: {
  onClose: () => void;
  onMade: (accountId: number) => void;
}) {
  const networks = useQuery({
    queryKey: ['accountChoices'],
    staleTime: Infinity,
    queryFn: ({ signal }) => answer(api.GET('/api/accounts/choices', { signal })),
  }).data?.networks;
  const queries = useQueryClient();
  const [network, setNetwork] = useState('');
  const [code, setCode] = useState('');
  const [offers, setOffers] = useState<Schemas['NetworkAccountOffer'][] | null>(null);
  const [made, setMade] = useState<Schemas['MadeAccount'] | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const networkId = network || (networks?.[0]?.id ?? '');
  const attempt = async (work: () => Promise<void>) => {
    setBusy(true);
    setProblem(null);
    try {
      await work();
    } catch (error) {
      if (error instanceof ApiProblem) setProblem(error.message);
      else tell(error);
    }
    setBusy(false);
  };
  // Whoever leaves while it is read finds it among the others.
  const leave = () => {
    if (made) void queries.invalidateQueries({ queryKey: ['session'] });
    onClose();
  };
  const open = () =>
    attempt(async () =>
      setOffers(await answer(api.POST('/api/accounts/openings', { body: { network: networkId, code } }))),
    );
  const connect = (account: string) =>
    attempt(async () =>
      setMade(
        await answer(api.POST('/api/accounts/connected', { body: { network: networkId, code, account } })),
      ),
    );
  return (
    <Dialog
      open
      wide
      onClose={leave}
      title="Connect an account"
      description="An account that runs on a network already: everything in it is read, and nothing there is changed."
    >
      <form
        className="grid grid-cols-[200px_1fr_auto] items-start gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void open();
        }}
      >
        <div className="pt-[21px]">
          {networks && (
            <Choice
              label="Network"
              className="w-full"
              disabled={made !== null}
              value={networkId}
              options={networks.map((each) => ({ value: each.id, label: each.name }))}
              onChange={(next) => {
                setNetwork(next);
                setOffers(null);
              }}
            />
          )}
        </div>
        <TextField
          label="Access code"
          value={code}
          disabled={made !== null}
          hint="The network gives it to the owner of the account."
          problem={problem}
          onChange={(event) => {
            setCode(event.target.value);
            setOffers(null);
          }}
        />
        <Button type="submit" className="mt-[21px]" disabled={!code.trim() || busy || made !== null}>
          Open
        </Button>
      </form>
      {busy && !offers && (
        <p role="status" className="mt-3 text-ink-2">
          The network is asked…
        </p>
      )}
      {offers && !made && (
        <ul className="mt-3 border-t border-line" aria-label="Accounts that the code opens">
          {offers.map((each) => (
            <li key={each.id} className="flex items-center gap-3 border-b border-line-soft py-2">
              <div className="min-w-0 flex-1">
                <p className="truncate font-semibold">{each.name}</p>
                <p className="text-[12.5px] text-ink-2">
                  {each.campaigns === 0
                    ? 'Empty'
                    : `${plural(each.campaigns, 'campaign')}, ${plural(each.adGroups, 'ad group')}, ${plural(each.keywords, 'keyword')}`}
                  {` · ${each.currency} · ${each.timeZone} · `}
                  {each.payer ? `paid by ${each.payer}` : 'nobody pays yet'}
                </p>
                {each.writers.map((writer) => (
                  <p key={writer.name} className="text-[12.5px]">
                    <WeightMark weight="caution">
                      {writer.name} writes to it too, last on {moment(writer.lastAt)}. Agree who does what, or
                      ask for their access to be taken away.
                    </WeightMark>
                  </p>
                ))}
              </div>
              <Button tone="plum" disabled={busy} onClick={() => void connect(each.id)}>
                Connect
              </Button>
            </li>
          ))}
        </ul>
      )}
      {made?.jobId != null && <Reading accountId={made.accountId} jobId={made.jobId} onOpen={onMade} />}
    </Dialog>
  );
}

const ongoing = ['waiting', 'running'];

function Reading({
  accountId,
  jobId,
  onOpen,
}: {
  accountId: number;
  jobId: number;
  onOpen: (accountId: number) => void;
}) {
  const job = useQuery<Schemas['JobView']>({
    queryKey: [accountId, 'connecting', jobId],
    refetchInterval: (query) => (ongoing.includes(query.state.data?.state ?? 'waiting') ? 500 : false),
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/jobs/{jobId}', { params: { path: { accountId, jobId } }, signal }),
      ),
  }).data;
  const isOver = job && !ongoing.includes(job.state);
  return (
    <div role="status" className="mt-3 space-y-2 border-t border-line pt-3">
      {!isOver ? (
        <>
          <p>{job && job.done > 0 ? `${whole(job.done)} items read…` : 'Reading what is in it…'}</p>
          <Progress label="Reading the account" done={job?.done ?? 0} total={job?.total ?? null} />
        </>
      ) : (
        <>
          <p className={job.state === 'done' ? '' : 'text-brick'}>
            {job.message ?? 'It is here.'}
            {job.state !== 'done' && ' The rest is read when the live copy is read next.'}
          </p>
          <Button tone="ember" autoFocus onClick={() => onOpen(accountId)}>
            Open it
          </Button>
        </>
      )}
    </div>
  );
}
