import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useAccount } from '../../api/account';
import { answer, api } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { ItemDialog } from '../../sheet/editing/ItemDialog';
import { Button } from '../../ui/Button';
import { BooksDialog } from './BooksDialog';

const kind = 'conversionAction';
const nowhere = { campaignId: null, adGroupId: null };

/** Makes an action, or changes or removes the one that is looked at. */
export function ActionButtons({ current, onNew }: { current: number | null; onNew: () => void }) {
  const [open, setOpen] = useState<'new' | 'change' | 'books' | null>(null);
  const rows = useActionRows();
  const row = rows.data?.rows.find((each) => each.id === current) ?? null;
  const account = useAccount();
  const run = useCommand();
  const close = () => setOpen(null);
  return (
    <>
      {row && (
        <>
          <Button aria-label={`Change… ${row.name}`} onClick={() => setOpen('change')}>
            Change…
          </Button>
          <Button
            tone="quiet"
            aria-label={`Remove ${row.name}`}
            onClick={() =>
              run.mutate({
                type: 'remove',
                items: [{ kind, id: row.id }],
                seen: [{ kind, id: row.id, version: row.version }],
              })
            }
          >
            Remove
          </Button>
        </>
      )}
      <Button onClick={() => setOpen('books')}>Own books…</Button>
      <a
        className="rounded-sm border border-line-strong bg-sheet px-2.5 py-1 font-semibold hover:bg-paper"
        href={`/api/accounts/${account.id}/conversions/clicks/file`}
        download
      >
        Click ids as CSV
      </a>
      <Button
        tone="plum"
        onClick={() => {
          onNew();
          setOpen('new');
        }}
      >
        New action…
      </Button>
      {open === 'books' && <BooksDialog onClose={close} />}
      {open === 'new' && <ItemDialog kind={kind} row={null} place={nowhere} onClose={close} />}
      {open === 'change' && row && <ItemDialog kind={kind} row={row} place={nowhere} onClose={close} />}
    </>
  );
}

/** The actions as the sheet has them, with their versions. */
function useActionRows() {
  const account = useAccount();
  return useQuery({
    queryKey: [account.id, 'conversions', 'rows'],
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/sheet', {
          params: { path: { accountId: account.id } },
          body: { kind, limit: 200 },
          signal,
        }),
      ),
  });
}
