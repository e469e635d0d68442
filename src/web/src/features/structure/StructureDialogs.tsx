import type { Command, Schemas } from '../../api/client';
import { AdDialog } from './AdDialog';
import { AddDialog } from './AddDialog';
import { CombineDialog } from './CombineDialog';
import { ConflictDialog } from './ConflictDialog';
import { CopyDialog } from './CopyDialog';
import { DuplicatesDialog } from './DuplicatesDialog';
import { EditTextsDialog } from './EditTextsDialog';
import { LabelsDialog } from './LabelsDialog';
import { MatchTypesDialog } from './MatchTypesDialog';
import { PreviewDialog } from './PreviewDialog';
import { TakeOutDialog, type Portion } from '../outtake/TakeOutDialog';
import { chosenOf, sizeOf, type Selection } from './selection';
import { kindsOf, type BulkEdit } from './SelectionPanel';
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
  onStep: (stepId: number | null) => void;
}

/** The dialogs of Structure, one at a time. */
export function StructureDialogs({ open, selection, shown, place, onClose, onOpen, onDone, onStep }: Props) {
  switch (open?.what) {
    case 'preview':
      return <PreviewDialog command={open.command} onClose={onClose} onDone={onDone} />;
    case 'add':
      return open.addition === 'ad' ? null : (
        <AddDialog what={open.addition} place={place} onClose={onClose} />
      );
    case 'ad':
      return (
        <AdDialog key={open.row ? keyOf(open.row) : 'new'} ad={open.row} place={place} onClose={onClose} />
      );
    case 'bulk':
      return <BulkDialog edit={open.edit} selection={selection} onClose={onClose} onDone={onDone} />;
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

interface BulkProps extends Pick<Props, 'selection' | 'onClose' | 'onDone'> {
  edit: BulkEdit;
}

function BulkDialog({ edit, selection, onClose, onDone }: BulkProps) {
  const kinds = kindsOf(selection);
  const chosen = chosenOf(selection);
  switch (edit) {
    case 'texts':
      return (
        <EditTextsDialog chosen={chosen} fields={textFieldsOf(kinds)} onClose={onClose} onDone={onDone} />
      );
    case 'copy':
      return <CopyDialog chosen={chosen} kinds={kinds} onClose={onClose} onDone={onDone} />;
    case 'labels':
      return <LabelsDialog chosen={chosen} onClose={onClose} onDone={onDone} />;
    case 'matchTypes':
      return (
        <MatchTypesDialog
          chosen={chosenOf(selection, (row) => row.kind === 'keyword')}
          onClose={onClose}
          onDone={onDone}
        />
      );
  }
}

function textFieldsOf(kinds: ReadonlySet<Schemas['ItemKind']>): Schemas['TextField'][] {
  const fields: Schemas['TextField'][] = [];
  if (kinds.has('campaign') || kinds.has('adGroup') || kinds.has('negativeList')) fields.push('name');
  if (kinds.has('keyword') || kinds.has('negativeKeyword')) fields.push('words');
  if (kinds.has('textAd')) fields.push('headlines', 'descriptions', 'displayPath');
  if (kinds.has('textAd') || kinds.has('keyword')) fields.push('finalUrl');
  return fields;
}

/** An edit in words, as the one who made it would say it. */
function mineOf(command: Command): string {
  switch (command.type) {
    case 'setText':
      return command.text;
    case 'changeAmount':
      return command.operation === 'inherit' ? 'from the ad group' : String(command.value);
    case 'setState':
      return command.state ?? '';
    case 'setMatchType':
      return command.match ?? '';
    case 'pasteCells':
      return command.cells.map((cell) => cell.text).join(', ');
    default:
      return 'your change';
  }
}
