import { useEffect } from 'react';

/** Something that can be done on the page that is open. */
export interface PageCommand {
  name: string;
  /** The keys that do the same. */
  keys?: string;
  run: () => void;
}

let current: readonly PageCommand[] = [];

/** Offers what a page can do to the field that runs any command. */
export function usePageCommands(commands: readonly PageCommand[]) {
  useEffect(() => {
    current = commands;
    return () => {
      current = [];
    };
  });
}

/** What the open page offers now. */
export function pageCommands(): readonly PageCommand[] {
  return current;
}
