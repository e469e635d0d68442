import { useQuery } from '@tanstack/react-query';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { useDeferredValue, useEffect, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { answer, api, type Schemas } from '../../api/client';
import { useStatus, useUndo } from '../../api/hooks';
import { useKinds } from '../../api/kinds';
import { Keys, MatchChip } from '../../ui/Marks';
import { goHome } from '../../ui/home';
import { useAccount } from '../../api/account';
import { KindNoun } from '../../ui/KindNoun';
import { pageCommands } from '../pageCommands';
import { allPages } from '../pages';
import { useGo } from '../scope';
import { clockMoves, type Clock } from './useClock';
import { useSignOut } from './useSignOut';

interface Props {
  open: boolean;
  clock: Clock;
  onClose: () => void;
  onKeys: () => void;
}

/** One field that finds anything and runs any command. */
export function CommandField({ open, onClose, ...more }: Props) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-plum-deep/40" />
        <Dialog.Content
          aria-describedby={undefined}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            goHome();
          }}
          className="fixed top-[9vh] left-1/2 z-50 w-[min(620px,calc(100vw-24px))] -translate-x-1/2 overflow-hidden rounded-lg border border-line-strong bg-sheet shadow-xl"
        >
          <Dialog.Title className="sr-only">Find or do anything</Dialog.Title>
          <Finder onClose={onClose} {...more} />
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** Frames for which an entry is waited for after Enter. */
const mostFrames = 60;

function Finder({ clock, onClose, onKeys }: Omit<Props, 'open'>) {
  const account = useAccount();
  const go = useGo();
  const navigate = useNavigate();
  const status = useStatus();
  const { undo, redo } = useUndo();
  const kinds = useKinds();
  const signOut = useSignOut();
  const [here] = useState(pageCommands);
  const [words, setWords] = useState('');
  const [marked, setMarked] = useState('');
  const asked = useDeferredValue(words.trim());
  const found = useQuery({
    queryKey: [account.id, 'find', asked],
    enabled: asked.length > 0,
    placeholderData: (previous) => previous,
    queryFn: () =>
      answer(
        api.GET('/api/accounts/{accountId}/find', {
          params: { path: { accountId: account.id }, query: { words: asked } },
        }),
      ),
  });
  // Whoever types faster than the list follows gets what was typed, not what stood there before.
  const settled = asked === words.trim() && !found.isPlaceholderData && !found.isLoading;
  const entered = useRef(false);
  const list = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!settled || !entered.current) return;
    entered.current = false;
    // The list marks its first entry a moment after it has changed, on a busy machine some frames later.
    let frames = mostFrames;
    let frame = requestAnimationFrame(function look() {
      const first = list.current?.querySelector<HTMLElement>('[cmdk-item][aria-selected="true"]');
      if (first) first.click();
      else if (--frames > 0) frame = requestAnimationFrame(look);
    });
    return () => cancelAnimationFrame(frame);
  }, [settled]);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'Enter' || settled) return;
    event.preventDefault();
    entered.current = true;
  };
  const then = (action: () => void) => () => {
    onClose();
    action();
  };
  const show = (place: Schemas['PlaceInAccount']) =>
    go('plan/structure', {
      campaign: place.campaignId,
      adGroup: place.kind === 'campaign' ? null : place.adGroupId,
      focus: `${place.kind}:${place.id}`,
    });
  const sought = asked.toLowerCase().split(/\s+/);
  const matches = (text: string) => sought.every((word) => text.toLowerCase().includes(word));
  const commands: { name: string; keys?: string; run: () => void; when?: boolean }[] = [
    ...here,
    {
      name: `Undo “${status.data?.undoLabel ?? ''}”`,
      keys: 'Ctrl Z',
      run: () => void undo(),
      when: !!status.data?.undoLabel,
    },
    {
      name: `Redo “${status.data?.redoLabel ?? ''}”`,
      keys: 'Ctrl Shift Z',
      run: () => void redo(),
      when: !!status.data?.redoLabel,
    },
    { name: 'Review changes and publish', run: () => go('ship/changes') },
    { name: 'Bring in a list', keys: 'Alt I', run: () => go('plan/intake') },
    { name: 'Take out what is here, as a file', run: () => go('plan/structure', { takeOut: 1 }) },
    ...kinds.inLists.map(({ kind, noun }) => ({
      name: `Add ${/^[aeiou]/.test(noun) ? 'an' : 'a'} ${noun}`,
      run: () => go('plan/structure', { add: kind }),
    })),
    { name: 'Show the outline', run: () => go('plan/structure') },
    ...kinds.inLists.map(({ kind }) => ({
      name: `Show all ${kinds.noun(kind, 2)}`,
      run: () => go('plan/structure', { view: kind }),
    })),
    ...clockMoves.map(({ name, hours }) => ({
      name: `${name} on the simulated network`,
      run: () => clock.move(hours),
      when: !clock.isRunning,
    })),
    { name: 'Saved searches: tests of the account', run: () => go('ship/trace', { of: 'saved' }) },
    { name: 'Trace many searches', run: () => go('ship/trace', { of: 'list' }) },
    {
      name: 'All accounts in one table: go to one, make one, connect one',
      run: () => void navigate(`/${account.id}/accounts`),
    },
    { name: 'Who pays for the account', run: () => go('ship/checks', { payer: 1 }) },
    { name: 'What needs attention today', run: () => void navigate(`/${account.id}`) },
    { name: 'Keys of this page', keys: '?', run: onKeys },
    { name: 'Style guide', run: () => void navigate(`/${account.id}/styles`) },
    { name: 'Sign out', run: () => void signOut() },
  ];
  const places = asked ? (found.data ?? []) : [];
  const pages = allPages.filter((page) => matches(`${page.phase} ${page.name}`));
  const offered = commands.filter((command) => command.when !== false && matches(command.name));
  const values = [
    ...places.map((place) => `${place.kind}:${place.id}`),
    ...pages.map((page) => page.path),
    ...offered.map((command) => `command ${command.name}`),
  ];
  return (
    <Command
      shouldFilter={false}
      label="Find or do anything"
      // The first entry is marked whenever the one that was is gone.
      value={values.includes(marked) ? marked : (values[0] ?? '')}
      onValueChange={setMarked}
      onKeyDown={onKeyDown}
    >
      <Command.Input
        autoFocus
        value={words}
        onValueChange={(next) => {
          setWords(next);
          setMarked('');
        }}
        placeholder="A campaign, an ad group, a keyword, a page, a command"
        className="w-full border-b border-line bg-transparent px-4 py-3 text-[15px] outline-none"
      />
      <Command.List ref={list} className="max-h-[60vh] overflow-auto p-1.5">
        <Command.Empty className="px-3 py-3 text-ink-3">Nothing of that name.</Command.Empty>
        {places.length > 0 && (
          <Command.Group heading={<Heading>In {account.name}</Heading>}>
            {places.map((place) => (
              <Entry
                key={`${place.kind}${place.id}`}
                value={`${place.kind}:${place.id}`}
                onSelect={then(() => show(place))}
              >
                <span className="w-20 shrink-0 text-ink-3">
                  <KindNoun kind={place.kind} />
                </span>
                <span className="truncate font-semibold">{place.name}</span>
                {place.match && <MatchChip match={place.match} />}
                <span className="ml-auto truncate text-ink-3">{place.inside}</span>
              </Entry>
            ))}
          </Command.Group>
        )}
        {pages.length > 0 && (
          <Command.Group heading={<Heading>Pages</Heading>}>
            {pages.map((page) => (
              <Entry key={page.path} value={page.path} onSelect={then(() => go(page.path))}>
                <span className="w-20 shrink-0 text-ink-3">{page.phase}</span>
                <span className="font-semibold">{page.name}</span>
              </Entry>
            ))}
          </Command.Group>
        )}
        {offered.length > 0 && (
          <Command.Group heading={<Heading>Commands</Heading>}>
            {offered.map((command) => (
              <Entry key={command.name} value={`command ${command.name}`} onSelect={then(command.run)}>
                <span className="min-w-0 flex-1 truncate">{command.name}</span>
                {command.keys && <Keys>{command.keys}</Keys>}
              </Entry>
            ))}
          </Command.Group>
        )}
      </Command.List>
    </Command>
  );
}

function Heading({ children }: { children: ReactNode }) {
  return <span className="block px-2 pt-1.5 pb-0.5 text-[11.5px] font-semibold text-ink-3">{children}</span>;
}

function Entry({ value, onSelect, children }: { value: string; onSelect: () => void; children: ReactNode }) {
  return (
    <Command.Item
      value={value}
      onSelect={onSelect}
      className="flex cursor-default items-center gap-2 rounded-sm px-2 py-1.5 data-[selected=true]:bg-plum-wash"
    >
      {children}
    </Command.Item>
  );
}
