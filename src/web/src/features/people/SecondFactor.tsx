import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { toast } from 'sonner';
import { renderSVG } from 'uqr';
import { answer, api, ApiProblem, type Schemas } from '../../api/client';
import { tell } from '../../api/hooks';
import { Button } from '../../ui/Button';
import { TextField } from '../../ui/Field';
import { plural } from '../../ui/format';

type Doing =
  | { step: 'rest' }
  | { step: 'proof'; for: 'begin' | 'codes' | 'off' }
  | { step: 'confirm'; secret: Schemas['FactorSecret'] }
  | { step: 'codes'; codes: readonly string[] };

const titles = { begin: 'Go on', codes: 'Make new codes', off: 'Turn it off' };

/** A code of one's device beside the password: turned on, renewed, turned off. */
export function SecondFactor() {
  const queries = useQueryClient();
  const state = useQuery({
    queryKey: ['secondFactor'],
    queryFn: ({ signal }) => answer(api.GET('/api/session/second-factor', { signal })),
  });
  const [doing, setDoing] = useState<Doing>({ step: 'rest' });
  const [password, setPassword] = useState('');
  const [code, setCode] = useState('');
  const [problem, setProblem] = useState<Record<string, string[]>>({});
  const isOn = state.data?.isOn ?? false;
  const go = (next: Doing) => {
    setDoing(next);
    setPassword('');
    setCode('');
    setProblem({});
  };
  const attempt = async (work: () => Promise<Doing>) => {
    setProblem({});
    try {
      go(await work());
      await queries.invalidateQueries({ queryKey: ['secondFactor'] });
    } catch (error) {
      if (error instanceof ApiProblem && Object.keys(error.fields).length > 0) setProblem(error.fields);
      else tell(error);
    }
  };
  const prove = (what: 'begin' | 'codes' | 'off') =>
    attempt(async () => {
      const body = { password, code: code || null };
      switch (what) {
        case 'begin':
          return { step: 'confirm', secret: await answer(api.POST('/api/session/second-factor', { body })) };
        case 'codes':
          return { step: 'codes', ...(await answer(api.POST('/api/session/second-factor/codes', { body }))) };
        case 'off':
          await answer(api.POST('/api/session/second-factor/off', { body }));
          toast('Your password alone is asked for from now on.');
          return { step: 'rest' };
      }
    });
  const confirm = () =>
    attempt(async () => ({
      step: 'codes',
      ...(await answer(api.POST('/api/session/second-factor/confirm', { body: { code } }))),
    }));
  return (
    <section aria-label="Second factor" className="mt-4 border-t border-line pt-3">
      <h3 className="text-[13.5px] font-semibold">A code beside the password</h3>
      {doing.step === 'rest' && state.data && (
        <div className="mt-1 flex items-center gap-2">
          <p className="mr-auto text-ink-2">
            {isOn
              ? `Asked for whenever you sign in. ${plural(state.data.recoveryLeft, 'recovery code')} left.`
              : 'Whoever learns your password still cannot sign in without your device.'}
          </p>
          {isOn ? (
            <>
              <Button tone="quiet" onClick={() => go({ step: 'proof', for: 'codes' })}>
                New recovery codes
              </Button>
              <Button tone="quiet" onClick={() => go({ step: 'proof', for: 'off' })}>
                Turn it off
              </Button>
            </>
          ) : (
            <Button onClick={() => go({ step: 'proof', for: 'begin' })}>Turn it on</Button>
          )}
        </div>
      )}
      {doing.step === 'proof' && (
        <form
          className="mt-2 grid grid-cols-[1fr_1fr_auto_auto] items-start gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void prove(doing.for);
          }}
        >
          <TextField
            label="Your password"
            type="password"
            autoComplete="current-password"
            autoFocus
            value={password}
            problem={problem['password']?.join(' ')}
            onChange={(event) => setPassword(event.target.value)}
          />
          {isOn ? (
            <TextField
              label="Code"
              inputMode="numeric"
              autoComplete="one-time-code"
              value={code}
              hint="Of your device, or a recovery code."
              problem={problem['code']?.join(' ')}
              onChange={(event) => setCode(event.target.value)}
            />
          ) : (
            <span />
          )}
          <Button type="submit" className="mt-[21px]" disabled={!password}>
            {titles[doing.for]}
          </Button>
          <Button tone="quiet" className="mt-[21px]" onClick={() => go({ step: 'rest' })}>
            Leave it
          </Button>
        </form>
      )}
      {doing.step === 'confirm' && (
        <form
          className="mt-2 grid grid-cols-[148px_1fr] gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            void confirm();
          }}
        >
          <img
            className="size-[148px] rounded-sm border border-line bg-white p-1"
            alt="The secret as a picture for the camera of your device"
            src={`data:image/svg+xml;utf8,${encodeURIComponent(renderSVG(doing.secret.address))}`}
          />
          <div className="space-y-2">
            <p>
              Show the picture to an application for one-time codes on your device, or type{' '}
              <b className="font-semibold tracking-wide">{doing.secret.secret}</b> into it. Then type the code
              that it shows.
            </p>
            <div className="flex items-start gap-2">
              <TextField
                label="Code of the device"
                hideLabel
                inputMode="numeric"
                autoComplete="one-time-code"
                autoFocus
                value={code}
                problem={problem['code']?.join(' ')}
                onChange={(event) => setCode(event.target.value)}
              />
              <Button type="submit" disabled={!code}>
                Turn it on
              </Button>
              <Button tone="quiet" onClick={() => go({ step: 'rest' })}>
                Leave it
              </Button>
            </div>
          </div>
        </form>
      )}
      {doing.step === 'codes' && (
        <div role="status" className="mt-2 rounded-sm bg-plum-wash p-2.5">
          <p>
            Keep these recovery codes where you find them without your device. Each opens once, and they are
            shown only now.
          </p>
          <ul className="mt-1.5 grid grid-cols-4 gap-x-4 font-semibold tracking-wide">
            {doing.codes.map((each) => (
              <li key={each}>{each}</li>
            ))}
          </ul>
          <div className="mt-2 flex gap-2">
            <Button
              autoFocus
              onClick={() =>
                void navigator.clipboard.writeText(doing.codes.join('\n')).then(
                  () => toast('The codes are on the clipboard.'),
                  () => toast('The clipboard is closed to this page. Write the codes down.'),
                )
              }
            >
              Copy them
            </Button>
            <Button tone="quiet" onClick={() => go({ step: 'rest' })}>
              I have them
            </Button>
          </div>
        </div>
      )}
    </section>
  );
}
