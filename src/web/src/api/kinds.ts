import { createContext, useContext } from 'react';
import type { ItemKind, Schemas, SheetRow } from './client';

export type Kind = Schemas['KindView'];
export type ItemField = Schemas['FieldView'];
export type Level = Schemas['Level'];
export type ValueForm = Schemas['ValueForm'];

/** What the server says of the kinds of items: nothing here knows a kind or a field by itself. */
export class Kinds {
  readonly all: readonly Kind[];

  constructor(all: readonly Kind[]) {
    this.all = all;
  }

  of(kind: ItemKind): Kind {
    const found = this.all.find((each) => each.kind === kind);
    if (!found) throw new Error(`There is no kind ${kind}.`);
    return found;
  }

  /** keyword, keywords */
  noun(kind: ItemKind, n = 1): string {
    const { noun, plural } = this.of(kind);
    return n === 1 ? noun : plural;
  }

  /** 1,234 keywords */
  count(n: number, kind: ItemKind): string {
    return `${n.toLocaleString('en-GB')} ${this.noun(kind, n)}`;
  }

  /** The kind as a title: Keywords */
  title(kind: ItemKind): string {
    const { plural } = this.of(kind);
    return plural.charAt(0).toUpperCase() + plural.slice(1);
  }

  field(kind: ItemKind, name: string): ItemField | undefined {
    return this.of(kind).fields.find((field) => field.name === name);
  }

  nameField(kind: ItemKind): ItemField | undefined {
    return this.of(kind).fields.find((field) => field.isName);
  }

  /** Kinds that people add and remove; the account's own item is always there. */
  get moving(): readonly Kind[] {
    return this.all.filter((kind) => kind.comesAndGoes);
  }

  /** Kinds of which there is one for ever, where there is something to set. */
  get staying(): readonly Kind[] {
    return this.all.filter(
      (kind) => !kind.comesAndGoes && kind.fields.some((field) => field.form !== 'labels'),
    );
  }

  /** Kinds that stand in campaigns and ad groups, in the order in which an outline shows them. */
  get inOutline(): readonly Kind[] {
    return this.moving.filter(
      (kind) => kind.holds === 'campaign' || kind.levels.some((level) => level !== 'account'),
    );
  }

  /** Kinds that have a list of their own in the structure; lists of negatives have a page. Those of the account come last. */
  get inLists(): readonly Kind[] {
    const rest = this.moving.filter((kind) => kind.holds !== 'list' && !this.inOutline.includes(kind));
    return [...this.inOutline, ...rest];
  }

  /** What may be chosen in a field, wherever it stands. */
  choices(name: string): readonly Schemas['ChoiceView'][] {
    for (const kind of this.all) {
      const field = kind.fields.find((each) => each.name === name);
      if (field) return field.choices;
    }
    return [];
  }

  /** A choice as people say it: all words. */
  choiceName(name: string, key: string): string {
    return this.choices(name).find((choice) => choice.key === key)?.name ?? key;
  }
}

export const KindsContext = createContext<Kinds | null>(null);

export function useKinds(): Kinds {
  const kinds = useContext(KindsContext);
  if (!kinds) throw new Error('The kinds of items are not known here.');
  return kinds;
}

/** A value of a row, where it is a text. */
export function textIn(row: Pick<SheetRow, 'values'>, name: string): string | null {
  const value = row.values[name];
  return typeof value === 'string' ? value : null;
}

/** A value of a row, where it is several texts. */
export function textsIn(row: Pick<SheetRow, 'values'>, name: string): readonly string[] {
  const value = row.values[name];
  return Array.isArray(value) ? (value as string[]) : [];
}

export function amountIn(row: { values: SheetRow['values'] }, name: string): number | null {
  const value = row.values[name];
  return typeof value === 'number' ? value : null;
}
