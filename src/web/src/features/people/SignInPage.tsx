import { useState, type FormEvent } from 'react';
import { answer, api, ApiProblem } from '../../api/client';
import { Button } from '../../ui/Button';
import { TextField } from '../../ui/Field';
import { Entry } from './Entry';

export function SignInPage({ note, onSignedIn }: { note?: string; onSignedIn: () => void }) {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [code, setCode] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  const signIn = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    try {
      await answer(api.POST('/api/session', { body: { email: email.trim(), password, code } }));
      onSignedIn();
    } catch (error) {
      // The password was right, and a code is wanted: it is asked for, and nothing is wrong.
      if (error instanceof ApiProblem && error.fields['code'] && code === null) {
        setCode('');
        setProblem(null);
      } else setProblem(error instanceof ApiProblem ? error.message : 'Signing in failed. Try again.');
      setBusy(false);
    }
  };

  return (
    <Entry title="Sign in">
      <form onSubmit={(event) => void signIn(event)} className="space-y-3" noValidate>
        {note && <p className="text-ink-2">{note}</p>}
        <TextField
          label="E-mail address"
          type="email"
          autoComplete="username"
          autoFocus
          value={email}
          onChange={(event) => setEmail(event.target.value)}
        />
        <TextField
          label="Password"
          type="password"
          autoComplete="current-password"
          value={password}
          onChange={(event) => setPassword(event.target.value)}
        />
        {code !== null && (
          <TextField
            label="Code"
            inputMode="numeric"
            autoComplete="one-time-code"
            autoFocus
            value={code}
            hint="What your device shows now, or one of your recovery codes."
            onChange={(event) => setCode(event.target.value)}
          />
        )}
        {problem && (
          <p role="alert" className="text-brick">
            {problem}
          </p>
        )}
        <Button type="submit" tone="ember" className="w-full py-1.5" disabled={busy || !email || !password}>
          Sign in
        </Button>
      </form>
    </Entry>
  );
}
