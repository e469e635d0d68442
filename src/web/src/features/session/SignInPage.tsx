import { useState, type FormEvent } from 'react';
import { answer, api, ApiProblem } from '../../api/client';
import { Button } from '../../ui/Button';
import { TextField } from '../../ui/Field';

export function SignInPage({ onSignedIn }: { onSignedIn: () => void }) {
  const [email, setEmail] = useState('');
  const [password, setPassword] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);

  const signIn = async (event: FormEvent) => {
    event.preventDefault();
    setBusy(true);
    try {
      await answer(api.POST('/api/session', { body: { email: email.trim(), password } }));
      onSignedIn();
    } catch (error) {
      setProblem(error instanceof ApiProblem ? error.message : 'Signing in failed. Try again.');
      setBusy(false);
    }
  };

  return (
    <main className="grid h-full grid-cols-1 bg-plum-deep min-[900px]:grid-cols-[1fr_420px]">
      <div className="swallowtail hidden flex-col justify-center gap-4 bg-plum p-16 pr-24 text-[#f4ecf5] min-[900px]:flex">
        <svg width={56} height={56} viewBox="0 0 22 22" aria-hidden>
          <path d="M4 1v20" stroke="#f4ecf5" strokeWidth="2" />
          <path d="M5 2h15l-4 5 4 5H5z" fill="#c8501e" />
        </svg>
        <p className="font-head text-[44px] leading-tight font-semibold">Fendrik</p>
        <p className="max-w-md text-[16px] text-[#e6d8ea]">
          Plan it, write it, price it, ship it, learn from it, improve it. Every step can be seen before, and
          taken back after.
        </p>
      </div>
      <div className="grid place-items-center bg-paper p-8">
        <form onSubmit={(event) => void signIn(event)} className="w-full max-w-[300px] space-y-3" noValidate>
          <h1 className="text-[22px]">Sign in</h1>
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
          {problem && (
            <p role="alert" className="text-brick">
              {problem}
            </p>
          )}
          <Button type="submit" tone="ember" className="w-full py-1.5" disabled={busy || !email || !password}>
            Sign in
          </Button>
        </form>
      </div>
    </main>
  );
}
