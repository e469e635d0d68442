import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { answer, api, ApiProblem } from '../../api/client';
import { tell, useAct } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { TextField } from '../../ui/Field';
import { moment } from '../../ui/format';
import { SecondFactor } from './SecondFactor';

/** Where one is signed in, what was tried, and one's password. */
export function SignInsDialog({ onClose }: { onClose: () => void }) {
  const signIns = useQuery({
    queryKey: ['signIns'],
    queryFn: ({ signal }) => answer(api.GET('/api/session/sign-ins', { signal })),
  });
  const { act: change } = useAct(['signIns']);
  const data = signIns.data;
  const failed = data?.attempts.filter((each) => !each.wentWell) ?? [];
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title="Sign-ins and password"
      description="What is ended here is ended at once, on every machine."
    >
      {signIns.isError && (
        <p role="alert" className="text-brick">
          {signIns.error.message}
        </p>
      )}
      {data && (
        <table className="w-full border-collapse">
          <thead>
            <tr className="h-[29px] border-b border-line-strong text-left text-[12px] text-ink-3">
              {['With', 'From', 'Since', 'Last used'].map((name) => (
                <th key={name} scope="col" className="pr-3 font-semibold">
                  {name}
                </th>
              ))}
              <td className="text-right">
                {data.signIns.length > 1 && (
                  <Button
                    tone="quiet"
                    onClick={() =>
                      void change(
                        () => answer(api.DELETE('/api/session/sign-ins')),
                        'You are signed in here only.',
                      )
                    }
                  >
                    End all others
                  </Button>
                )}
              </td>
            </tr>
          </thead>
          <tbody>
            {data.signIns.map((each) => (
              <tr key={each.id} className="h-[27px] border-b border-line-soft">
                <th
                  scope="row"
                  className="max-w-[260px] truncate pr-3 text-left font-semibold"
                  title={each.browser}
                >
                  {browserOf(each.browser)}
                  {each.isThis && <span className="font-normal text-ink-3"> · this one</span>}
                </th>
                <td className="pr-3">{each.address}</td>
                <td className="pr-3 whitespace-nowrap">{moment(each.madeAt)}</td>
                <td className="pr-3 whitespace-nowrap">{moment(each.seenAt)}</td>
                <td className="text-right">
                  {!each.isThis && (
                    <Button
                      tone="quiet"
                      aria-label={`End the sign-in of ${moment(each.madeAt)}`}
                      onClick={() =>
                        void change(
                          () =>
                            answer(
                              api.DELETE('/api/session/sign-ins/{signInId}', {
                                params: { path: { signInId: each.id } },
                              }),
                            ),
                          'The sign-in is ended.',
                        )
                      }
                    >
                      End
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {failed[0] && (
        <p className="mt-2 text-[12.5px] text-ink-2">
          {failed.length} of the last {data?.attempts.length} attempts had a wrong password, the last on{' '}
          {moment(failed[0].at)} from {failed[0].address}.
        </p>
      )}
      <SecondFactor />
      <PasswordForm />
    </Dialog>
  );
}

function PasswordForm() {
  const [current, setCurrent] = useState('');
  const [next, setNext] = useState('');
  const [problem, setProblem] = useState<Record<string, string[]>>({});
  const queries = useQueryClient();
  const submit = async () => {
    setProblem({});
    try {
      await answer(api.PUT('/api/session/password', { body: { current, next } }));
      toast('The new password holds. You are signed in here only.');
      setCurrent('');
      setNext('');
      await queries.invalidateQueries({ queryKey: ['signIns'] });
    } catch (error) {
      if (error instanceof ApiProblem && Object.keys(error.fields).length > 0) setProblem(error.fields);
      else tell(error);
    }
  };
  return (
    <form
      className="mt-4 grid grid-cols-[1fr_1fr_auto] items-start gap-2 border-t border-line pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <TextField
        label="Password that holds"
        type="password"
        autoComplete="current-password"
        value={current}
        problem={problem['current']?.join(' ')}
        onChange={(event) => setCurrent(event.target.value)}
      />
      <TextField
        label="New password"
        type="password"
        autoComplete="new-password"
        value={next}
        hint="At least 12 characters. All other sign-ins end."
        problem={problem['next']?.join(' ')}
        onChange={(event) => setNext(event.target.value)}
      />
      <Button type="submit" className="mt-[21px]" disabled={!current || !next}>
        Change it
      </Button>
    </form>
  );
}

/** Of what a browser calls itself, the machine that it says it runs on: its own name stands in several others' as well. */
function browserOf(agent: string) {
  const parts = (/\(([^)]+)\)/.exec(agent)?.[1] ?? '').split(';').map((part) => part.trim());
  const machine = parts.reduce((longest, part) => (part.length > longest.length ? part : longest), '');
  return machine ? `a browser on ${machine}` : 'something that does not say';
}
