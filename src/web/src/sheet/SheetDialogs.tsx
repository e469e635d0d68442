import type { Command, ItemKind, Schemas } from '../api/client';
import { useKinds } from '../api/kinds';
import { ItemDialog } from './editing/ItemDialog';
import { WordsDialog } from './editing/WordsDialog';
import { CombineDialog } from './cleaning/CombineDialog';
import { ConflictDialog } from './editing/ConflictDialog';
import { CopyDialog } from './editing/CopyDialog';
import { DuplicatesDialog } from './cleaning/DuplicatesDialog';
import { EditTextsDialog } from './editing/EditTextsDialog';
import { LabelsDialog } from './editing/LabelsDialog';
import { NegativesDialog } from './editing/NegativesDialog';
import { MatchTypesDialog } from './cleaning/MatchTypesDialog';
import { PreviewDialog } from './editing/PreviewDialog';
import { TakeOutDialog, type Portion } from '../files/outtake/TakeOutDialog';
import { chosenOf, sizeOf, type Selection } from './selection';
import { holdersOf, kindsOf, type BulkEdit } from './editing/bulk';
import { keyOf } from './sheetQuery';
import type { Open } from './open';

interface Props {
  open: Open | null;
  selection: Selection;
  /** What the sheet shows, where that is less than everything. */
  shown?: Portion;
  place: { campaignId: number | null; adGroupId: number | null };
  onClose: () => void;
  onOpen: (open: Open) => void;
  onDone: (result: Schemas['CommandAnswer'], command: Command) => void;
  /** A step was made of which so many items are new. */
  onStep: (stepId: number | null, items: number) => void;
  /** Shows what a step touched, and nothing else. */
  onShow: (stepId: number) => void;
}

/** Kinds that are added many at a time, one on each line. */
const inLines: ReadonlySet<ItemKind> = new Set(['keyword', 'negativeKeyword']);

/** The dialogs over a sheet, one at a time. */
export function SheetDialogs({
  open,
  selection,
  shown,
  place,
  onClose,
  onOpen,
  onDone,
  onStep,
  onShow,
}: Props) {
  switch (open?.what) {
    case 'preview':
      return <PreviewDialog command={open.command} onClose={onClose} onDone={onDone} onShow={onShow} />;
    case 'add':
      return inLines.has(open.kind) ? (
        <WordsDialog kind={open.kind} place={place} onClose={onClose} />
      ) : (
        <ItemDialog kind={open.kind} row={null} place={place} onClose={onClose} />
      );
    case 'item':
      return (
        <ItemDialog
          key={keyOf(open.row)}
          kind={open.row.kind}
          row={open.row}
          place={place}
          onClose={onClose}
        />
      );
    case 'bulk':
      return (
        <BulkDialog
          edit={open.edit}
          selection={selection}
          onClose={onClose}
          onDone={onDone}
          onShow={onShow}
        />
      );
    case 'combine':
      return <CombineDialog adGroupId={place.adGroupId} onClose={onClose} onDone={onStep} />;
    case 'duplicates':
      return (
        <DuplicatesDialog onClose={onClose} onPreview={(command) => onOpen({ what: 'preview', command })} />
      );
    case 'takeOut':
      return <TakeOutDialog shown={shown} selected={portionOf(selection)} onClose={onClose} />;
    case 'conflict':
      return (
        <ConflictDialog
          problem={open.problem}
          command={open.command}
          mine={mineOf(open.command)}
          onClose={onClose}
        />
      );
    default:
      return null;
  }
}

function portionOf(selection: Selection): Portion | undefined {
  const count = sizeOf(selection);
  return count > 0 ? { count, ...chosenOf(selection) } : undefined;
}

interface BulkProps extends Pick<Props, 'selection' | 'onClose' | 'onDone' | 'onShow'> {
  edit: BulkEdit;
}

function BulkDialog({ edit, selection, ...dialog }: BulkProps) {
  const known = useKinds();
  const kinds = kindsOf(selection, known);
  const chosen = chosenOf(selection);
  switch (edit) {
    case 'texts':
      return <EditTextsDialog chosen={chosen} kinds={kinds} {...dialog} />;
    case 'copy':
      return <CopyDialog chosen={chosen} kinds={kinds} {...dialog} />;
    case 'labels':
      return <LabelsDialog chosen={chosen} {...dialog} />;
    case 'matchTypes':
      return <MatchTypesDialog chosen={chosenOf(selection, (row) => row.kind === 'keyword')} {...dialog} />;
    case 'negatives':
      return <NegativesDialog places={holdersOf(selection, known)} {...dialog} />;
  }
}

/** An edit in words, as the one who made it would say it. */
function mineOf(command: Command): string {
  switch (command.type) {
    case 'setFields':
      return Object.values(command.values).flat().join(', ') || 'emptied';
    case 'setCells':
      return command.cells.map((cell) => cell.text).join(', ') || 'emptied';
    default:
      return 'your change';
  }
}
