import {
  QueryCache,
  QueryClient,
  QueryClientProvider,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query';
import { Tooltip } from 'radix-ui';
import { useMemo, type ReactNode } from 'react';
import { BrowserRouter, Navigate, Route, Routes, useMatch, useNavigate, useParams } from 'react-router';
import { Toaster } from 'sonner';
import { answer, api, ApiProblem, keepToken } from '../api/client';
import { AccountsPage } from '../features/accounts/AccountsPage';
import { FirstAccount } from '../features/accounts/FirstAccount';
import { AdsPage } from '../features/ads/AdsPage';
import { BidsPage } from '../features/bids/BidsPage';
import { BudgetsPage } from '../features/budgets/BudgetsPage';
import { SettingsPage } from '../features/settings/SettingsPage';
import { CallsPage } from '../features/calls/CallsPage';
import { ChangesPage } from '../features/changes/ChangesPage';
import { ChecksPage } from '../features/checks/ChecksPage';
import { ConversionsPage } from '../features/conversions/ConversionsPage';
import { ExtensionsPage } from '../features/extensions/ExtensionsPage';
import { HistoryPage } from '../features/history/HistoryPage';
import { HoursPage } from '../features/hours/HoursPage';
import { IntakePage } from '../files/intake/IntakePage';
import { LinksPage } from '../features/links/LinksPage';
import { NegativesPage } from '../features/negatives/NegativesPage';
import { ResultsPage } from '../features/results/ResultsPage';
import { JoinPage } from '../features/people/JoinPage';
import { SignInPage } from '../features/people/SignInPage';
import { StartPage } from '../features/start/StartPage';
import { StructurePage } from '../features/structure/StructurePage';
import { TermsPage } from '../features/terms/TermsPage';
import { TracePage } from '../features/trace/TracePage';
import { StylesPage } from '../features/styles/StylesPage';
import { AccountContext } from '../api/account';
import { Kinds, KindsContext } from '../api/kinds';
import { Frame } from './frame/Frame';
import { useSignOut } from './frame/useSignOut';

function makeClient() {
  const client: QueryClient = new QueryClient({
    queryCache: new QueryCache({
      onError: (error) => {
        // Signed out elsewhere, or too long ago: the sign-in page takes over.
        if (error instanceof ApiProblem && error.status === 401)
          void client.invalidateQueries({ queryKey: ['session'] });
      },
    }),
    defaultOptions: {
      queries: {
        staleTime: 2_000,
        retry: (times, error) => times < 2 && !(error instanceof ApiProblem && error.status >= 400),
      },
    },
  });
  return client;
}

export function App() {
  const client = useMemo(() => makeClient(), []);
  return (
    <QueryClientProvider client={client}>
      <Tooltip.Provider delayDuration={300}>
        <BrowserRouter>
          <Entrance />
        </BrowserRouter>
        {/* News stand on the empty end of the ribbon: they cover neither rows nor totals, and take no key. */}
        <Toaster
          position="top-right"
          offset={{ top: 49, right: 10 }}
          mobileOffset={{ top: 49, right: 10 }}
          hotkey={[]}
          visibleToasts={2}
          toastOptions={{
            duration: 5000,
            style: {
              fontFamily: 'var(--font-body)',
              fontSize: 13.5,
              padding: '6px 12px',
              borderRadius: 5,
              border: '1px solid var(--color-line-strong)',
              borderLeft: '4px solid var(--color-plum)',
              background: 'var(--color-sheet)',
              color: 'var(--color-ink)',
              boxShadow: '0 2px 8px rgb(50 32 60 / 18%)',
            },
            descriptionClassName: 'toast-detail',
            actionButtonStyle: { background: 'var(--color-plum)', color: 'white', fontWeight: 600 },
          }}
        />
      </Tooltip.Provider>
    </QueryClientProvider>
  );
}

function Entrance() {
  const queries = useQueryClient();
  const go = useNavigate();
  const signOut = useSignOut();
  const joining = useMatch('/join/:key')?.params.key;
  const session = useQuery({
    queryKey: ['session'],
    queryFn: async () => {
      const read = await answer(api.GET('/api/session'));
      keepToken(read.token);
      return read;
    },
    staleTime: Infinity,
  });
  if (session.isError)
    return <Notice>Fendrik does not answer. Check that it is running, then load the page again.</Notice>;
  if (!session.data) return <Notice>Opening…</Notice>;
  if (joining)
    return (
      <JoinPage
        link={joining}
        person={session.data.person}
        onJoined={(accountId) => {
          void queries.resetQueries();
          void go(`/${accountId}`);
        }}
        onSignedIn={() => void queries.resetQueries()}
        onSignOut={signOut}
      />
    );
  if (!session.data.person) return <SignInPage onSignedIn={() => void queries.resetQueries()} />;
  const first = session.data.accounts.find((each) => !each.isArchived) ?? session.data.accounts[0];
  if (!first)
    return (
      <FirstAccount
        onMade={(accountId) =>
          void queries.resetQueries({ queryKey: ['session'] }).then(() => go(`/${accountId}`))
        }
      />
    );
  return (
    <Routes>
      <Route path="/:accountId/*" element={<AccountPages session={session.data} />} />
      <Route path="*" element={<Navigate to={`/${first.id}`} replace />} />
    </Routes>
  );
}

function Notice({ children }: { children: ReactNode }) {
  return (
    <main className="grid h-full place-items-center p-8 text-ink-2">
      <p role="status">{children}</p>
    </main>
  );
}

function AccountPages({ session }: { session: NonNullable<Parameters<typeof Frame>[0]>['session'] }) {
  const { accountId } = useParams();
  const account = session.accounts.find((each) => String(each.id) === accountId);
  const value = useMemo(() => (account ? { session, account } : null), [session, account]);
  const kinds = useQuery({
    queryKey: [account?.id, 'kinds'],
    enabled: account !== undefined,
    staleTime: Infinity,
    select: known,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/kinds', { params: { path: { accountId: account?.id ?? 0 } } }),
      ),
  });
  if (!value) return <Notice>There is no such account, or it is not yours.</Notice>;
  if (kinds.isError) return <Notice>{kinds.error.message}</Notice>;
  if (!kinds.data) return <Notice>Opening…</Notice>;
  return (
    // Nothing of one account is left on the page of another: neither what is typed nor what was read.
    <AccountContext key={value.account.id} value={value}>
      <KindsContext value={kinds.data}>
        <Frame session={session}>
          <Routes>
            <Route index element={<StartPage />} />
            <Route path="plan/intake" element={<IntakePage />} />
            <Route path="plan/structure" element={<StructurePage />} />
            <Route path="plan/negatives" element={<NegativesPage />} />
            <Route path="write/ads" element={<AdsPage />} />
            <Route path="price/settings" element={<SettingsPage />} />
            <Route path="price/budgets" element={<BudgetsPage />} />
            <Route path="price/bids" element={<BidsPage />} />
            <Route path="price/hours" element={<HoursPage />} />
            <Route path="write/extensions" element={<ExtensionsPage />} />
            <Route path="write/links" element={<LinksPage />} />
            <Route path="ship/checks" element={<ChecksPage />} />
            <Route path="ship/trace" element={<TracePage />} />
            <Route path="ship/changes" element={<ChangesPage />} />
            <Route path="ship/history" element={<HistoryPage />} />
            <Route path="learn/results" element={<ResultsPage />} />
            <Route path="learn/terms" element={<TermsPage />} />
            <Route path="learn/calls" element={<CallsPage />} />
            <Route path="learn/conversions" element={<ConversionsPage />} />
            <Route path="accounts" element={<AccountsPage />} />
            <Route path="styles" element={<StylesPage />} />
            <Route path="*" element={<Navigate to=".." replace />} />
          </Routes>
        </Frame>
      </KindsContext>
    </AccountContext>
  );
}

const known = (all: ConstructorParameters<typeof Kinds>[0]) => new Kinds(all);
