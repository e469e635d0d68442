import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useDeferredValue, useState } from 'react';
import { answer, api, type Command, type MatchType } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { plural } from '../../ui/format';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { TextArea, TextField } from '../../ui/Field';
import { AdGroupPicker } from '../editing/CopyDialog';
import { MatchTypeChecks } from './MatchTypesDialog';

const lines = (text: string) => text.split('\n').map((line) => line.trim());

/** Lists of words become keywords: every place with every service with every wish. */
export function CombineDialog({
  adGroupId,
  onClose,
  onDone,
}: {
  adGroupId: number | null;
  onClose: () => void;
  onDone: (stepId: number | null, items: number) => void;
}) {
  const account = useAccount();
  const run = useCommand();
  const [texts, setTexts] = useState(['', '', '']);
  const [matches, setMatches] = useState<readonly MatchType[]>(['exact', 'phrase']);
  const [groups, setGroups] = useState<readonly number[]>(adGroupId === null ? [] : [adGroupId]);
  const [amount, setAmount] = useState('');
  const lists = texts.filter((text) => text.trim() !== '').map(lines);
  const body = useDeferredValue({ lists, matches: [...matches] });
  const preview = useQuery({
    queryKey: [account.id, 'wordLists', body],
    enabled: lists.length > 0 && matches.length > 0,
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: () =>
      answer(
        api.POST('/api/accounts/{accountId}/word-lists', {
          params: { path: { accountId: account.id } },
          body,
        }),
      ),
  });
  const command: Command = {
    type: 'combineWords',
    adGroupIds: [...groups],
    lists,
    matches: [...matches],
    values: amount.trim() === '' ? null : { maxCpc: amount },
  };
  const found = lists.length > 0 && matches.length > 0 && !preview.isError ? preview.data : undefined;
  const left = found ? found.duplicates + found.tooLong : 0;
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Combine words into keywords"
      description="Each entry of one list with each of the next. An empty line stands for leaving a list out; words are not said twice."
      footer={
        <>
          <Button onClick={onClose}>Leave</Button>
          <Button
            tone="ember"
            disabled={!found || found.count === 0 || groups.length === 0 || run.isPending}
            onClick={() =>
              run.mutate(command, { onSuccess: (result) => onDone(result.stepId ?? null, result.items) })
            }
          >
            {found ? `Add ${plural(found.count * Math.max(1, groups.length), 'keyword')}` : 'Add'}
          </Button>
        </>
      }
    >
      <div className="grid grid-cols-3 gap-2">
        {['First words', 'then', 'then'].map((label, place) => (
          <TextArea
            key={place}
            label={label}
            rows={6}
            autoFocus={place === 0}
            placeholder={['leeds\nyork', 'piano tuning\npiano tuner', '\nprices'][place]}
            value={texts[place]}
            onChange={(event) =>
              setTexts(texts.map((text, number) => (number === place ? event.target.value : text)))
            }
          />
        ))}
      </div>
      <div className="my-2 flex items-end gap-4">
        <MatchTypeChecks matches={matches} onMatches={setMatches} />
        <TextField
          label="Max CPC"
          className="w-28"
          before={account.currencySign.trim()}
          inputMode="decimal"
          placeholder="ad group’s"
          value={amount}
          onChange={(event) => setAmount(event.target.value)}
        />
      </div>
      <AdGroupPicker chosen={groups} onChoose={setGroups} />
      {preview.isError && <p className="mt-2 text-brick">{preview.error.message}</p>}
      {found && (
        <div className="mt-3">
          <b className="font-semibold">{plural(found.count, 'keyword')}</b>
          {left > 0 && (
            <span className="text-ink-3">
              {' '}
              · {found.duplicates} came twice, {found.tooLong} had too many words
            </span>
          )}
          <ul className="mt-1 grid grid-cols-3 gap-x-4">
            {found.first.map((keyword) => (
              <li key={keyword} className="truncate">
                {keyword}
              </li>
            ))}
          </ul>
          {found.count > found.first.length && (
            <p className="text-ink-3">and {found.count - found.first.length} more</p>
          )}
        </div>
      )}
    </Dialog>
  );
}
