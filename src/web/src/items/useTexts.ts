import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue } from 'react';
import { useAccount } from '../api/account';
import { answer, api, type ItemKind, type Schemas } from '../api/client';
import { placedOf } from './placedLine';

export type TextRead = Schemas['TextRead'];

/** Texts as the network and its reviewers read them, kept or not. The answer follows what is typed; nothing waits for it. */
export function useTexts(
  kind: ItemKind,
  texts: Record<string, readonly string[]>,
  { wanted = true, said = null }: { wanted?: boolean; said?: string | null } = {},
) {
  const account = useAccount();
  const asked = useDeferredValue(JSON.stringify(texts));
  return useQuery({
    queryKey: [account.id, 'texts', kind, asked, said],
    enabled: wanted,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    queryFn: ({ signal }) =>
      answer(
        api.POST('/api/accounts/{accountId}/texts/read', {
          params: { path: { accountId: account.id } },
          body: { kind, texts: JSON.parse(asked) as Record<string, string[]>, said },
          signal,
        }),
      ),
  });
}

/** True where words are inserted into a text: what people see of it is for the server to say. */
export const inserts = (line: string): boolean => line.includes('{{');

/** What people see of lines: plain ones as they are typed, the others as the server read them last. */
export function seenOf(name: string, lines: readonly string[], read: readonly TextRead[]): string[] {
  return lines
    .map((line, at) =>
      inserts(line)
        ? (read.find((each) => each.field === name && each.part === at + 1)?.seen ?? '')
        : placedOf(line).text,
    )
    .filter((line) => line.trim() !== '');
}
