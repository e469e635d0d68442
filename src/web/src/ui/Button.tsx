import clsx from 'clsx';
import type { ComponentProps } from 'react';

export type ButtonTone = 'plain' | 'plum' | 'ember' | 'quiet' | 'brick';

const tones: Record<ButtonTone, string> = {
  plain: 'border-line-strong bg-sheet text-ink hover:bg-paper',
  plum: 'border-plum bg-plum text-white hover:bg-plum-deep',
  ember: 'border-ember bg-ember text-white hover:brightness-95',
  quiet: 'border-transparent bg-transparent text-ink-2 hover:bg-sunk',
  brick: 'border-brick bg-sheet text-brick hover:bg-brick-wash',
};

interface Props extends ComponentProps<'button'> {
  tone?: ButtonTone;
  pressed?: boolean;
}

export function Button({ tone = 'plain', pressed, className, type = 'button', ...rest }: Props) {
  return (
    <button
      type={type}
      aria-pressed={pressed}
      className={clsx(
        'inline-flex items-center justify-center gap-1.5 rounded-sm border px-2.5 py-1 font-semibold whitespace-nowrap',
        'disabled:border-line disabled:bg-sunk disabled:text-ink-3',
        tones[pressed ? 'plum' : tone],
        className,
      )}
      {...rest}
    />
  );
}
