import { useQueryClient } from '@tanstack/react-query';
import { useCallback } from 'react';
import { api } from '../../api/client';

/** Ends the session; the sign-in page takes over. */
export function useSignOut() {
  const queries = useQueryClient();
  return useCallback(async () => {
    await api.DELETE('/api/session');
    await queries.resetQueries();
  }, [queries]);
}
