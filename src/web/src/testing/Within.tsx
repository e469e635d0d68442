import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { AccountContext } from '../api/account';
import type { AccountSummary, SheetRow } from '../api/client';
import { Kinds, KindsContext, type ItemField, type Kind } from '../api/kinds';
import kindList from '../api/kinds.json';

export const account: AccountSummary = {
  id: 1,
  name: 'Tarn & Fell Pianos',
  currency: 'GBP',
  currencySign: '£',
  minorUnits: 2,
  timeZone: 'Europe/London',
  networkName: 'Ostrel Search',
  decimalMark: '.',
  role: 'owner',
  mayChange: true,
  mayPublish: true,
  mayInvite: true,
  isArchived: false,
};

/** The kinds as the server describes them; a test of the server holds the file to it. */
export const kinds = new Kinds(kindList as unknown as Kind[]);

export function fieldOf(kind: SheetRow['kind'], name: string): ItemField {
  const field = kinds.field(kind, name);
  if (!field) throw new Error(`A ${kind} has no ${name}.`);
  return field;
}

export function keyword(id: number, values: SheetRow['values'] = {}, more: Partial<SheetRow> = {}): SheetRow {
  return {
    kind: 'keyword',
    id,
    name: `keyword ${id}`,
    values: { text: `keyword ${id}`, match: 'phrase', state: 'running', labels: [], ...values },
    inherited: {},
    level: 'adGroup',
    campaignId: 1,
    campaign: 'Tuning',
    adGroupId: 2,
    adGroup: 'Piano tuner',
    version: 3,
    change: 'none',
    review: 'approved',
    needs: [],
    ...more,
  };
}

/** What pages have around them. */
export function Within({
  children,
  known = {},
}: {
  children: ReactNode;
  /** What has been read from the server, by its name. */
  known?: Record<string, unknown>;
}) {
  const queries = new QueryClient();
  for (const [name, data] of Object.entries(known)) queries.setQueryData([account.id, name], data);
  const session = { person: 'Morag Kerr', initials: 'MK', token: '', accounts: [account] };
  return (
    <QueryClientProvider client={queries}>
      <MemoryRouter>
        <AccountContext value={{ session, account }}>
          <KindsContext value={kinds}>{children}</KindsContext>
        </AccountContext>
      </MemoryRouter>
    </QueryClientProvider>
  );
}
