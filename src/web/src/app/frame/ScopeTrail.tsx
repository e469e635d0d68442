import { Command } from 'cmdk';
import { ChevronDown } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useEffect, useState, type ReactNode } from 'react';
import { Link, useNavigate } from 'react-router';
import type { AccountSummary } from '../../api/client';
import { useAdGroups, useCampaigns } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { hasLayer } from '../../ui/home';
import { useScope } from '../scope';

interface ChipOption {
  id: number | null;
  name: string;
}

interface ChipProps {
  label: string;
  current: string;
  options: readonly ChipOption[];
  onChoose: (id: number | null) => void;
  /** The keys that open it from anywhere. */
  keys?: string;
  open?: boolean;
  onOpen?: (open: boolean) => void;
  /** What leads on from the list. */
  foot?: ReactNode;
}

/** One level of the trail: a list that is searched by typing. */
function Chip({ label, current, options, onChoose, keys, foot, ...controlled }: ChipProps) {
  const [own, setOwn] = useState(false);
  const open = controlled.open ?? own;
  const setOpen = controlled.onOpen ?? setOwn;
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        aria-label={`${label}: ${current}`}
        aria-keyshortcuts={keys}
        className="flex max-w-[220px] items-center gap-1 rounded-sm bg-plum-mid px-2.5 py-1 text-[13px] font-medium"
      >
        <span className="truncate">{current}</span>
        <ChevronDown size={12} className="shrink-0 text-[#c3adca]" aria-hidden />
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          className="z-50 w-72 rounded-lg border border-line-strong bg-sheet text-ink shadow-lg"
          aria-label={label}
        >
          <Command label={label}>
            <Command.Input
              placeholder={`Find ${label.toLowerCase()}`}
              className="w-full rounded-t-lg border-b border-line bg-transparent px-3 py-2 outline-none"
            />
            <Command.List className="max-h-72 overflow-auto p-1">
              <Command.Empty className="px-2 py-2 text-ink-3">None of that name.</Command.Empty>
              {options.map((option) => (
                <Command.Item
                  key={option.id ?? 'all'}
                  value={`${option.name} ${option.id ?? ''}`}
                  onSelect={() => {
                    setOpen(false);
                    onChoose(option.id);
                  }}
                  className="cursor-default truncate rounded-sm px-2 py-1 data-[selected=true]:bg-plum-wash"
                >
                  {option.name}
                </Command.Item>
              ))}
            </Command.List>
          </Command>
          {foot && <div className="border-t border-line px-3 py-1.5">{foot}</div>}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

export function ScopeTrail({ accounts }: { accounts: readonly AccountSummary[] }) {
  const account = useAccount();
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!event.altKey || event.ctrlKey || event.code !== 'KeyA' || hasLayer()) return;
      event.preventDefault();
      setOpen(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const navigate = useNavigate();
  const { campaignId, adGroupId, setScope } = useScope();
  const campaigns = useCampaigns();
  const adGroups = useAdGroups(campaignId);
  const nameOf = (options: readonly ChipOption[] | undefined, id: number | null, all: string) =>
    id === null ? all : (options?.find((option) => option.id === id)?.name ?? '…');
  return (
    <nav aria-label="Scope" className="flex min-w-0 items-center gap-1">
      <Chip
        label="Account"
        current={account.name}
        options={accounts.filter((each) => !each.isArchived)}
        keys="Alt+A"
        open={open}
        onOpen={setOpen}
        foot={
          <Link
            to={`/${account.id}/accounts`}
            onClick={() => setOpen(false)}
            className="font-semibold text-plum underline"
          >
            All accounts in one table
          </Link>
        }
        onChoose={(id) => id !== null && void navigate(`/${id}`)}
      />
      <span aria-hidden className="text-[#a58cae]">
        /
      </span>
      <Chip
        label="Campaign"
        current={nameOf(campaigns.data, campaignId, 'All campaigns')}
        options={[{ id: null, name: 'All campaigns' }, ...(campaigns.data ?? [])]}
        onChoose={(id) => setScope({ campaignId: id, adGroupId: null })}
      />
      <span aria-hidden className="text-[#a58cae]">
        /
      </span>
      <Chip
        label="Ad group"
        current={nameOf(adGroups.data, adGroupId, 'All ad groups')}
        options={[{ id: null, name: 'All ad groups' }, ...(adGroups.data ?? [])]}
        onChoose={(id) => setScope({ campaignId, adGroupId: id })}
      />
    </nav>
  );
}
