import { useCallback } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { useAccount } from '../api/account';

export interface Scope {
  campaignId: number | null;
  adGroupId: number | null;
}

/** What one is looking at, as questions to the server say it. */
export const asQuery = ({ campaignId, adGroupId }: Scope) => ({
  campaignId: campaignId ?? undefined,
  adGroupId: adGroupId ?? undefined,
});

function number(text: string | null) {
  const value = Number(text);
  return text && Number.isInteger(value) ? value : null;
}

/** What one is looking at: kept in the address, so that it can be sent to a colleague. */
export function useScope(): Scope & {
  /** Goes there; what else of the address changes with it goes along, since two changes at once would undo one another. */
  setScope: (scope: Scope, more?: Readonly<Record<string, string | null>>) => void;
} {
  const [parameters, setParameters] = useSearchParams();
  const setScope = useCallback(
    (scope: Scope, more: Readonly<Record<string, string | null>> = {}) =>
      setParameters((current) => {
        const next = new URLSearchParams(current);
        for (const [name, value] of [
          ['campaign', scope.campaignId],
          ['adGroup', scope.adGroupId],
          ...Object.entries(more),
        ] as const) {
          if (value === null) next.delete(name);
          else next.set(name, String(value));
        }
        for (const name of ['focus', 'field', 'add']) next.delete(name);
        return next;
      }),
    [setParameters],
  );
  return {
    campaignId: number(parameters.get('campaign')),
    adGroupId: number(parameters.get('adGroup')),
    setScope,
  };
}

/** Goes to a page and takes the scope along. */
export function useGo() {
  const navigate = useNavigate();
  const account = useAccount();
  const [parameters] = useSearchParams();
  return useCallback(
    (page: string, set: Record<string, string | number | null> = {}) => {
      const next = new URLSearchParams();
      for (const name of ['campaign', 'adGroup']) {
        const value = parameters.get(name);
        if (value) next.set(name, value);
      }
      for (const [name, value] of Object.entries(set)) {
        if (value === null) next.delete(name);
        else next.set(name, String(value));
      }
      const query = next.toString();
      void navigate(`/${account.id}/${page}${query ? `?${query}` : ''}`);
    },
    [navigate, account.id, parameters],
  );
}
