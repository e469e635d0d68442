import { Progress as Radix } from 'radix-ui';

interface Props {
  label: string;
  done: number;
  total: number | null;
}

/** How far long work is; without a total, only that it goes on. */
export function Progress({ label, done, total }: Props) {
  const share = total ? Math.min(1, done / total) : null;
  return (
    <Radix.Root
      aria-label={label}
      value={share === null ? null : Math.round(share * 100)}
      className="h-2 overflow-hidden rounded-full bg-sunk"
    >
      <Radix.Indicator
        className={
          share === null ? 'h-full w-1/3 animate-pulse bg-plum' : 'h-full bg-plum transition-[width]'
        }
        style={share === null ? undefined : { width: `${share * 100}%` }}
      />
    </Radix.Root>
  );
}
