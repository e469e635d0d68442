import { useQuery } from '@tanstack/react-query';
import { useState, type FormEvent } from 'react';
import { answer, api, ApiProblem } from '../../api/client';
import { Button } from '../../ui/Button';
import { TextField } from '../../ui/Field';
import { Entry } from './Entry';
import { SignInPage } from './SignInPage';

interface Props {
  /** What the link of the invitation holds. */
  link: string;
  /** Who is signed in; none for nobody. */
  person: string | null | undefined;
  onJoined: (accountId: number) => void;
  onSignedIn: () => void;
  onSignOut: () => Promise<void>;
}

/** Joining an account by a link: whoever is new says a name and a password. */
export function JoinPage({ link, person, onJoined, onSignedIn, onSignOut }: Props) {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<{ said?: string; fields: Record<string, string[]> }>({ fields: {} });
  const [busy, setBusy] = useState(false);
  const params = { path: { key: link } };
  const invitation = useQuery({
    queryKey: ['invitation', link, person],
    queryFn: ({ signal }) => answer(api.GET('/api/invitations/{key}', { params, signal })),
  });
  const join = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    try {
      const joined = await answer(api.POST('/api/invitations/{key}', { params, body: { name, password } }));
      onJoined(joined.accountId);
    } catch (error) {
      const known = error instanceof ApiProblem ? error : null;
      setProblem(
        known && Object.keys(known.fields).length > 0
          ? { fields: known.fields }
          : { said: known?.message ?? 'Joining failed. Try again.', fields: {} },
      );
      setBusy(false);
    }
  };
  const open = invitation.data;
  const isNew = open && !open.isKnown && !person;
  // Whoever is signed in as somebody else goes on as whom the link is for.
  const isOther = open && !open.isSelf && Boolean(person);
  if (open?.isKnown && !person)
    return (
      <SignInPage
        note={`${open.askedBy || 'Somebody'} asks ${open.email} to join ${open.account} as ${open.roleName}. Sign in, and you are asked once more.`}
        onSignedIn={onSignedIn}
      />
    );
  return (
    <Entry title={open ? `Join ${open.account}` : 'Join an account'}>
      {invitation.isError ? (
        <p role="alert" className="text-brick">
          {invitation.error.message}
        </p>
      ) : !open ? (
        <p role="status">Opening…</p>
      ) : (
        <form onSubmit={(event) => void join(event)} className="space-y-3" noValidate>
          <p className="text-ink-2">
            {open.askedBy || 'Somebody'} asks you, {open.email}, to join as {open.roleName}. You may{' '}
            {open.meaning}.
          </p>
          {isNew && (
            <>
              <TextField
                label="Your name"
                autoComplete="name"
                autoFocus
                value={name}
                problem={problem.fields['name']?.join(' ')}
                onChange={(event) => setName(event.target.value)}
              />
              <TextField
                label="A password"
                type="password"
                autoComplete="new-password"
                value={password}
                hint="At least 12 characters."
                problem={problem.fields['password']?.join(' ')}
                onChange={(event) => setPassword(event.target.value)}
              />
            </>
          )}
          {problem.said && (
            <p role="alert" className="text-brick">
              {problem.said}
            </p>
          )}
          {isOther ? (
            <>
              <p>You are signed in as {person}.</p>
              <Button tone="ember" className="w-full py-1.5" onClick={() => void onSignOut()}>
                Sign out, and go on as {open.email}
              </Button>
            </>
          ) : (
            <Button
              type="submit"
              tone="ember"
              className="w-full py-1.5"
              disabled={busy || (isNew && (!name || !password))}
            >
              Join
            </Button>
          )}
        </form>
      )}
    </Entry>
  );
}
