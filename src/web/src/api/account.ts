import { createContext, useContext } from 'react';
import type { AccountSummary, Session } from './client';

export interface AccountContextValue {
  session: Session;
  account: AccountSummary;
}

export const AccountContext = createContext<AccountContextValue | null>(null);

/** The account that the page is about. */
export function useAccount(): AccountSummary {
  const value = useContext(AccountContext);
  if (!value) throw new Error('There is no account here.');
  return value.account;
}

export function useSession(): Session {
  const value = useContext(AccountContext);
  if (!value) throw new Error('There is no session here.');
  return value.session;
}
