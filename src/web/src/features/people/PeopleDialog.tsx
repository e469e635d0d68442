import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { useAccount } from '../../api/account';
import { answer, api, ApiProblem, type Schemas } from '../../api/client';
import { tell, useAct } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { TextField } from '../../ui/Field';
import { moment } from '../../ui/format';

type Role = Schemas['AccountRole'];

/** Who works on the account, as what, and who was asked to. */
export function PeopleDialog({ onClose }: { onClose: () => void }) {
  const account = useAccount();
  const queries = useQueryClient();
  const key = [account.id, 'people'];
  const people = useQuery({
    queryKey: key,
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/accounts/{accountId}/people', { params: { path: { accountId: account.id } }, signal }),
      ),
  });
  const { act: change } = useAct(key);
  const data = people.data;
  const nameOf = (role: Role) => data?.roles.find((each) => each.role === role)?.name ?? role;
  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`People of ${account.name}`}
      description={
        account.mayInvite
          ? 'A changed role holds at once; whoever had another signs in anew.'
          : 'Owners say who works here, and as what.'
      }
    >
      {people.isError && (
        <p role="alert" className="text-brick">
          {people.error.message}
        </p>
      )}
      {data && (
        <>
          <table className="w-full border-collapse">
            <thead>
              <tr className="h-[29px] border-b border-line-strong text-left text-[12px] text-ink-3">
                <th scope="col" className="pr-3 font-semibold">
                  Who
                </th>
                <th scope="col" className="pr-3 font-semibold">
                  E-mail address
                </th>
                <th scope="col" className="w-[150px] pr-3 font-semibold">
                  As
                </th>
                <td />
              </tr>
            </thead>
            <tbody>
              {data.members.map((each) => (
                <tr key={each.personId} className="h-[31px] border-b border-line-soft">
                  <th scope="row" className="max-w-[220px] truncate pr-3 text-left font-semibold">
                    {each.name}
                    {each.isSelf && <span className="font-normal text-ink-3"> · you</span>}
                  </th>
                  <td className="max-w-[260px] truncate pr-3">{each.email}</td>
                  <td className="pr-3">
                    {account.mayInvite && !each.isSelf ? (
                      <Choice
                        label={`Role of ${each.name}`}
                        value={each.role}
                        options={data.roles.map(({ role, name }) => ({ value: role, label: name }))}
                        onChange={(role) =>
                          void change(
                            () =>
                              answer(
                                api.PUT('/api/accounts/{accountId}/people/{personId}', {
                                  params: { path: { accountId: account.id, personId: each.personId } },
                                  body: { role },
                                }),
                              ),
                            `${each.name} is now ${nameOf(role)}.`,
                          )
                        }
                      />
                    ) : (
                      nameOf(each.role)
                    )}
                  </td>
                  <td className="text-right">
                    {account.mayInvite && !each.isSelf && (
                      <Button
                        tone="quiet"
                        aria-label={`Remove ${each.name} from this account`}
                        onClick={() =>
                          void change(
                            () =>
                              answer(
                                api.DELETE('/api/accounts/{accountId}/people/{personId}', {
                                  params: { path: { accountId: account.id, personId: each.personId } },
                                }),
                              ),
                            `${each.name} does not work here any more.`,
                          )
                        }
                      >
                        Remove
                      </Button>
                    )}
                  </td>
                </tr>
              ))}
              {data.invitations.map((each) => (
                <tr key={each.id} className="h-[31px] border-b border-line-soft text-ink-3">
                  <td className="pr-3">asked, until {moment(each.expiresAt)}</td>
                  <th scope="row" className="max-w-[260px] truncate pr-3 text-left font-normal">
                    {each.email}
                  </th>
                  <td className="pr-3">{nameOf(each.role)}</td>
                  <td className="text-right">
                    <Button
                      tone="quiet"
                      aria-label={`Take back the invitation of ${each.email}`}
                      onClick={() =>
                        void change(
                          () =>
                            answer(
                              api.DELETE('/api/accounts/{accountId}/invitations/{invitationId}', {
                                params: { path: { accountId: account.id, invitationId: each.id } },
                              }),
                            ),
                          'The link opens nothing any more.',
                        )
                      }
                    >
                      Take back
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {account.mayInvite && (
            <InviteForm roles={data.roles} onMade={() => void queries.invalidateQueries({ queryKey: key })} />
          )}
        </>
      )}
    </Dialog>
  );
}

function InviteForm({ roles, onMade }: { roles: Schemas['RoleChoice'][]; onMade: () => void }) {
  const account = useAccount();
  const [email, setEmail] = useState('');
  const [role, setRole] = useState<Role>('editor');
  const [problem, setProblem] = useState<string | null>(null);
  const [made, setMade] = useState<Schemas['MadeInvitation'] | null>(null);
  const chosen = roles.find((each) => each.role === role);
  const link = made ? `${window.location.origin}/join/${made.key}` : '';
  const invite = async () => {
    setProblem(null);
    try {
      setMade(
        await answer(
          api.POST('/api/accounts/{accountId}/invitations', {
            params: { path: { accountId: account.id } },
            body: { email, role },
          }),
        ),
      );
      setEmail('');
      onMade();
    } catch (error) {
      if (error instanceof ApiProblem && error.fields['email']) setProblem(error.message);
      else tell(error);
    }
  };
  return (
    <form
      className="mt-4 border-t border-line pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        void invite();
      }}
    >
      <div className="grid grid-cols-[1fr_150px_auto] items-start gap-2">
        <TextField
          label="Ask somebody by e-mail address"
          type="email"
          autoFocus
          value={email}
          problem={problem}
          hint={chosen && `As ${chosen.name} they may ${chosen.meaning}.`}
          onChange={(event) => setEmail(event.target.value)}
        />
        <div className="pt-[21px]">
          <Choice
            label="As what"
            value={role}
            options={roles.map((each) => ({ value: each.role, label: each.name }))}
            onChange={setRole}
            className="w-full"
          />
        </div>
        <Button type="submit" className="mt-[21px]" disabled={!email.trim()}>
          Make a link
        </Button>
      </div>
      {made && (
        <div className="mt-2 rounded-sm bg-plum-wash p-2.5">
          <p>
            Send this link to {made.invitation.email}. It opens once, until{' '}
            {moment(made.invitation.expiresAt)}, and is shown only now.
          </p>
          <div className="mt-1.5 flex gap-2">
            <input
              readOnly
              aria-label="Link to join"
              value={link}
              onFocus={(event) => event.target.select()}
              className="min-w-0 flex-1 rounded-sm border border-line-strong bg-white px-2 py-1"
            />
            <Button
              onClick={() =>
                void navigator.clipboard.writeText(link).then(
                  () => toast('The link is on the clipboard.'),
                  () => toast('The clipboard is closed to this page. Copy the link by hand.'),
                )
              }
            >
              Copy it
            </Button>
          </div>
        </div>
      )}
    </form>
  );
}
