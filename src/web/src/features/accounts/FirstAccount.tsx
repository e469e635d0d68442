import { useState } from 'react';
import { Button } from '../../ui/Button';
import { ConnectAccount } from './ConnectAccount';
import { MakeAccount } from './MakeAccount';

/** Whoever belongs to no account yet makes one, connects one, or waits to be asked. */
export function FirstAccount({ onMade }: { onMade: (accountId: number) => void }) {
  const [adding, setAdding] = useState<'make' | 'connect' | null>(null);
  return (
    <main className="grid h-full place-items-center p-8">
      <div className="max-w-md space-y-3 text-center">
        <h1 className="text-[20px]">You belong to no account yet</h1>
        <p className="text-ink-2">
          Make an empty one, connect one that runs on a network already, or ask a colleague to invite you.
        </p>
        <div className="flex justify-center gap-2">
          <Button onClick={() => setAdding('connect')}>Connect an account…</Button>
          <Button tone="ember" onClick={() => setAdding('make')}>
            Make an account…
          </Button>
        </div>
      </div>
      {adding === 'make' && <MakeAccount onClose={() => setAdding(null)} onMade={onMade} />}
      {adding === 'connect' && <ConnectAccount onClose={() => setAdding(null)} onMade={onMade} />}
    </main>
  );
}
