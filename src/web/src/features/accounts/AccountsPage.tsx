import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState, type KeyboardEvent } from 'react';
import { useNavigate } from 'react-router';
import { useAccount, useSession } from '../../api/account';
import { useAccountsOnDesk } from '../../api/accountsOnDesk';
import { answer, api, type AccountSummary } from '../../api/client';
import { useAct } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { TextField } from '../../ui/Field';
import { change, fullDay, money, nothing, whole } from '../../ui/format';
import { WeightMark } from '../../ui/Marks';
import { PageHead } from '../../ui/Panel';
import { Tick } from '../../ui/Tick';
import { ConnectAccount } from './ConnectAccount';
import { MakeAccount } from './MakeAccount';

const titles = [
  'Cost',
  'Change',
  'Conversions',
  'Cost per conversion',
  'Judged by',
  'Needs attention',
  'Reported to',
];

/** All accounts of a person in one table: found by typing, opened by Enter. */
export function AccountsPage() {
  const current = useAccount();
  const { accounts } = useSession();
  const known = useAccountsOnDesk().data ?? [];
  const queries = useQueryClient();
  const navigate = useNavigate();
  const [words, setWords] = useState('');
  const [archived, setArchived] = useState(false);
  const [adding, setAdding] = useState<'make' | 'connect' | null>(null);
  const [renamed, setRenamed] = useState<AccountSummary | null>(null);
  const { act } = useAct(['session']);
  const body = useRef<HTMLTableSectionElement>(null);
  const sought = words.toLowerCase().split(/\s+/);
  const away = accounts.filter((each) => each.isArchived).length;
  const rows = accounts
    .filter((each) => archived || !each.isArchived)
    .filter((each) => sought.every((word) => `${each.name} ${each.networkName}`.toLowerCase().includes(word)))
    .map((account) => ({ account, figures: known.find((row) => row.accountId === account.id) }))
    .sort((one, other) => (other.figures?.blockers ?? 0) - (one.figures?.blockers ?? 0));
  const open = (id: number) => void navigate(`/${id}`);
  const made = async (id: number) => {
    await queries.resetQueries({ queryKey: ['session'] });
    open(id);
  };
  const putAway = (account: AccountSummary) =>
    act(
      () =>
        answer(
          api.PUT('/api/accounts/{accountId}/archived', {
            params: { path: { accountId: account.id } },
            body: { archived: !account.isArchived },
          }),
        ),
      account.isArchived
        ? `${account.name} is back.`
        : `${account.name} is put away. What runs on the network runs on.`,
    );
  const links = () => [...(body.current?.querySelectorAll<HTMLElement>('a') ?? [])];
  const onKeys = (event: KeyboardEvent) => {
    const all = links();
    const at = all.indexOf(document.activeElement as HTMLElement);
    const next = { ArrowDown: all[at + 1], ArrowUp: all[at - 1], Home: all[0], End: all[all.length - 1] }[
      event.key
    ];
    if (at < 0 || !next) return;
    event.preventDefault();
    next.focus();
  };
  return (
    <div className="flex h-full min-h-0 flex-col bg-sheet">
      <PageHead title="All accounts" note="the last seven days that are reported, beside the seven before">
        <TextField
          label="Find an account"
          hideLabel
          placeholder="Find an account"
          value={words}
          autoFocus
          onChange={(event) => setWords(event.target.value)}
          onKeyDown={(event) => {
            const first = rows[0];
            if (event.key === 'Enter' && first) open(first.account.id);
            if (event.key === 'ArrowDown') {
              event.preventDefault();
              links()[0]?.focus();
            }
          }}
        />
        {away > 0 && (
          <label className="flex items-center gap-1.5">
            <Tick label="With those that are put away" checked={archived} onChange={setArchived} />
            with {whole(away)} put away
          </label>
        )}
        <Button onClick={() => setAdding('connect')}>Connect one…</Button>
        <Button tone="plum" onClick={() => setAdding('make')}>
          Make one…
        </Button>
      </PageHead>
      <div className="min-h-0 flex-1 overflow-auto px-3 pb-3" onKeyDown={onKeys}>
        <table className="w-full border-collapse">
          <thead>
            <tr className="h-[31px] border-b border-line-strong text-[12px] text-ink-3">
              <th scope="col" className="text-left font-semibold">
                Account
              </th>
              {titles.map((title) => (
                <th key={title} scope="col" className="pl-3 text-right font-semibold">
                  {title}
                </th>
              ))}
              <td />
            </tr>
          </thead>
          <tbody ref={body}>
            {rows.map(({ account, figures }) => (
              <tr key={account.id} className="h-[31px] border-b border-line-soft hover:bg-paper">
                <th scope="row" className="max-w-[280px] truncate text-left font-normal">
                  <a
                    href={`/${account.id}`}
                    className="rounded-sm font-semibold hover:underline"
                    onClick={(event) => {
                      event.preventDefault();
                      open(account.id);
                    }}
                  >
                    {account.name}
                  </a>
                  <span className="text-ink-3">
                    {' · '}
                    {account.networkName}
                    {account.id === current.id && ' · open'}
                    {account.isArchived && ' · put away'}
                    {account.role !== 'owner' && ` · you are ${account.role}`}
                  </span>
                </th>
                <td className="pl-3 text-right">{money(figures?.cost, account)}</td>
                <td className="pl-3 text-right text-ink-2">{change(figures?.change)}</td>
                <td className="pl-3 text-right">{figures ? whole(figures.conversions) : nothing}</td>
                <td className="pl-3 text-right">{money(figures?.costPerConversion, account)}</td>
                <td className="pl-3 text-right">{figures?.judgedBy ?? nothing}</td>
                <td className="pl-3 text-right whitespace-nowrap">
                  {figures && figures.blockers > 0 && (
                    <WeightMark weight="blocker">{whole(figures.blockers)}</WeightMark>
                  )}{' '}
                  {figures && figures.cautions > 0 && (
                    <WeightMark weight="caution">{whole(figures.cautions)}</WeightMark>
                  )}
                  {figures && figures.blockers + figures.cautions === 0 && nothing}
                </td>
                <td className="pl-3 text-right text-ink-2">
                  {figures?.reportedTo ? fullDay(figures.reportedTo) : nothing}
                </td>
                <td className="pl-3 text-right whitespace-nowrap">
                  {account.mayInvite && (
                    <>
                      <Button
                        tone="quiet"
                        aria-label={`Rename ${account.name}`}
                        onClick={() => setRenamed(account)}
                      >
                        Rename
                      </Button>
                      <Button
                        tone="quiet"
                        aria-label={
                          account.isArchived ? `Bring back ${account.name}` : `Put away ${account.name}`
                        }
                        onClick={() => void putAway(account)}
                      >
                        {account.isArchived ? 'Bring back' : 'Put away'}
                      </Button>
                    </>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {rows.length === 0 && <p className="py-3 text-ink-3">None of that name.</p>}
      </div>
      {adding === 'make' && (
        <MakeAccount like={current} onClose={() => setAdding(null)} onMade={(id) => void made(id)} />
      )}
      {adding === 'connect' && (
        <ConnectAccount onClose={() => setAdding(null)} onMade={(id) => void made(id)} />
      )}
      {renamed && <Rename account={renamed} onClose={() => setRenamed(null)} />}
    </div>
  );
}

function Rename({ account, onClose }: { account: AccountSummary; onClose: () => void }) {
  const { act, busy } = useAct(['session']);
  const [name, setName] = useState(account.name);
  const rename = () =>
    act(
      () =>
        answer(
          api.PUT('/api/accounts/{accountId}/name', {
            params: { path: { accountId: account.id } },
            body: { name },
          }),
        ),
      null,
    ).then((done) => done && onClose());
  return (
    <Dialog open onClose={onClose} title={`Rename ${account.name}`}>
      <form
        className="flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void rename();
        }}
      >
        <TextField
          label="Name"
          className="flex-1"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit" tone="ember" disabled={!name.trim() || busy}>
          Rename it
        </Button>
      </form>
    </Dialog>
  );
}
