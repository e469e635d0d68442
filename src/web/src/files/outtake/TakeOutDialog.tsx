import { useState } from 'react';
import { answer, api, type Schemas } from '../../api/client';
import { tell } from '../../api/hooks';
import { useAccount } from '../../api/account';
import { plural, whole } from '../../ui/format';
import { Button } from '../../ui/Button';
import { Dialog } from '../../ui/Dialog';
import { RadioGroup } from '../../ui/RadioGroup';

type Form = Schemas['OuttakeForm'];
type Part = 'account' | 'shown' | 'selected';

export interface Portion {
  count: number;
  where?: Schemas['SheetRequest'];
  items?: Schemas['ItemReference'][];
}

interface Props {
  /** What the page shows, when it shows less than everything. */
  shown?: Portion;
  selected?: Portion;
  onClose: () => void;
}

const forms: { value: Form; label: string; hint: string }[] = [
  { value: 'xlsx', label: 'Workbook, XLSX', hint: 'amounts are numbers, days are dates' },
  { value: 'csv', label: 'Text, CSV', hint: 'commas, UTF-8, for any program' },
  { value: 'json', label: 'JSON', hint: 'for programs; described by a published schema' },
];

/** Takes items out into a file that an intake takes back in to the last field. */
export function TakeOutDialog({ shown, selected, onClose }: Props) {
  const account = useAccount();
  const [form, setForm] = useState<Form>('xlsx');
  const [part, setPart] = useState<Part>(selected ? 'selected' : shown ? 'shown' : 'account');
  const [asking, setAsking] = useState(false);
  const take = async () => {
    const portion = part === 'selected' ? selected : part === 'shown' ? shown : undefined;
    setAsking(true);
    try {
      const asked = await answer(
        api.POST('/api/accounts/{accountId}/outtakes', {
          params: { path: { accountId: account.id } },
          body: { form, where: portion?.where ?? null, items: portion?.items ?? null },
        }),
      );
      // The browser fetches the file as a download of its own: it goes to the disk as it comes, however long it is.
      const link = document.createElement('a');
      link.href = `/api/accounts/${account.id}/outtakes/${asked.id}/file`;
      link.download = '';
      link.click();
      onClose();
    } catch (error) {
      tell(error);
      setAsking(false);
    }
  };
  const parts: { value: Part; label: string; hint?: string }[] = [
    ...(selected
      ? [{ value: 'selected' as const, label: `What is selected, ${plural(selected.count, 'row')}` }]
      : []),
    ...(shown ? [{ value: 'shown' as const, label: `What is shown, ${plural(shown.count, 'row')}` }] : []),
    { value: 'account', label: `All of ${account.name}`, hint: 'with negatives and negative lists' },
  ];
  return (
    <Dialog
      open
      onClose={onClose}
      title="Take out"
      description="Into a file that Intake takes back in, here or at another account."
      footer={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button tone="ember" disabled={asking} onClick={() => void take()}>
            Take out
          </Button>
        </>
      }
    >
      <form
        className="space-y-4"
        onSubmit={(event) => {
          event.preventDefault();
          void take();
        }}
      >
        {parts.length > 1 && (
          <RadioGroup first label="What" value={part} options={parts} onChange={setPart} />
        )}
        <RadioGroup first={parts.length === 1} label="As" value={form} options={forms} onChange={setForm} />
        {form === 'json' && (
          <p className="text-ink-2">
            The form is described at{' '}
            <a
              href="/schemas/account-1.json"
              target="_blank"
              rel="noreferrer"
              className="text-plum underline"
            >
              /schemas/account-1.json
            </a>
            .
          </p>
        )}
        {form === 'xlsx' && part === 'account' && (
          <p className="text-ink-3">A sheet holds {whole(1_048_575)} rows; more go on in the next one.</p>
        )}
        <button type="submit" className="hidden" tabIndex={-1} aria-hidden />
      </form>
    </Dialog>
  );
}
