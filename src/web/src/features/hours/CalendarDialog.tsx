import { useMutation } from '@tanstack/react-query';
import { useRef } from 'react';
import { useAccount } from '../../api/account';
import { answer, api } from '../../api/client';
import { useCommand } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { count, percent, plural } from '../../ui/format';
import type { Hours } from './useHours';

/** Hours out as a calendar file, and in from one. */
export function CalendarDialog({ hours, onClose }: { hours: Hours; onClose: () => void }) {
  const account = useAccount();
  const file = useRef<HTMLInputElement>(null);
  const run = useCommand();
  const read = useMutation({
    mutationFn: async (chosen: File) =>
      answer(
        api.POST('/api/accounts/{accountId}/hours/calendar', {
          params: { path: { accountId: account.id } },
          body: { text: await chosen.text() },
        }),
      ),
  });
  const first = hours.campaigns.find((campaign) => campaign.id === hours.chosen[0]);
  const take = () => {
    if (!read.data || run.isPending) return;
    run.mutate(
      {
        type: 'setFields',
        items: hours.chosen.map((id) => ({ kind: 'campaign', id })),
        values: { hours: read.data.plan },
        seen: hours.campaigns
          .filter((campaign) => hours.chosen.includes(campaign.id))
          .map(({ id, version }) => ({ kind: 'campaign', id, version })),
      },
      { onSuccess: onClose },
    );
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title="Calendar file"
      description="Hours as iCalendar: an event that comes every week for each part of it. Any calendar whose events come every week or every day can be taken."
      footer={
        <>
          <Button onClick={onClose}>Leave</Button>
          {read.data && (
            <Button tone="ember" data-confirms onClick={take}>
              Give these hours to {plural(hours.chosen.length, 'campaign')}
            </Button>
          )}
        </>
      }
    >
      <div className="space-y-3">
        {first && (
          <p>
            <a
              className="font-semibold text-plum underline"
              href={`/api/accounts/${account.id}/hours/${first.id}.ics`}
              download
            >
              Take out the hours of “{first.name}”
            </a>
          </p>
        )}
        <div>
          <input
            ref={file}
            type="file"
            accept=".ics,text/calendar"
            aria-label="Calendar file"
            className="sr-only"
            tabIndex={-1}
            onChange={(event) => {
              const chosen = event.target.files?.[0];
              if (chosen) read.mutate(chosen);
              event.target.value = '';
            }}
          />
          <Button data-first onClick={() => file.current?.click()}>
            Choose a calendar file…
          </Button>
        </div>
        {read.isError && (
          <p role="alert" className="text-brick">
            {read.error.message}
          </p>
        )}
        {read.data && (
          <p role="status">
            It says <strong>{read.data.plan || 'the whole week'}</strong>: {count(read.data.hours)} h,{' '}
            {percent(read.data.share, 1)} of the week.
          </p>
        )}
      </div>
    </Dialog>
  );
}
