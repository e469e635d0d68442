import { useEffect } from 'react';
import { useLocation } from 'react-router';
import { useAccount } from '../../api/account';
import { allPages } from '../pages';

/** The browser's tab says which page of which account it holds. */
export function usePageTitle() {
  const account = useAccount();
  const { pathname } = useLocation();
  const page =
    allPages.find((each) => pathname.endsWith(each.path))?.name ??
    (pathname.endsWith('/accounts') ? 'All accounts' : 'Today');
  useEffect(() => {
    document.title = `${page} · ${account.name} · Fendrik`;
  }, [page, account.name]);
}
