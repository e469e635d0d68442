import { useState } from 'react';
import type { Schemas, SheetRow } from '../../../api/client';
import { useKinds } from '../../../api/kinds';
import { Button } from '../../../ui/Button';
import { CheckField, TextArea } from '../../../ui/Field';
import { Panel } from '../../../ui/Panel';
import { RemarkList } from '../said/RemarkList';
import type { useLookActs } from '../said/useLookActs';

interface Props {
  remarks: readonly Schemas['LookRemark'][];
  /** The row that is selected; a remark is about it. */
  about: SheetRow | undefined;
  isOpen: boolean;
  doing: ReturnType<typeof useLookActs>;
  onShow: (item: { kind: string; id: number }) => void;
}

/** What is said of the campaign and its items, those of the selected one first. */
export function SaidHere({ remarks, about, isOpen, doing, onShow }: Props) {
  const kinds = useKinds();
  const [text, setText] = useState('');
  const [ofWhole, setOfWhole] = useState(false);
  const item = about && !ofWhole && !about.isHeading ? { kind: about.kind, id: about.id } : null;
  const say = async () => {
    if (await doing.say(text, item)) setText('');
  };
  const isAbout = (remark: Schemas['LookRemark']) =>
    about !== undefined && remark.kind === about.kind && remark.itemId === about.id;
  return (
    <>
      {isOpen && (
        <Panel>
          <div className="space-y-2">
            <TextArea
              label={item ? `About ${kinds.noun(item.kind)} “${about?.name ?? ''}”` : 'About all of it'}
              rows={3}
              value={text}
              onChange={(event) => setText(event.target.value)}
              onKeyDown={(event) => {
                if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void say();
              }}
            />
            {about && !about.isHeading && (
              <CheckField label="About all of it" checked={ofWhole} onChange={setOfWhole} />
            )}
            <Button disabled={doing.busy || !text.trim()} onClick={() => void say()}>
              Say it
            </Button>
          </div>
        </Panel>
      )}
      <RemarkList
        remarks={[...remarks].sort((one, other) => Number(isAbout(other)) - Number(isAbout(one)))}
        nameOf={({ kind, itemId, name }) =>
          kind && itemId != null ? (
            <button
              type="button"
              className="max-w-full truncate text-left hover:underline"
              onClick={() => onShow({ kind, id: itemId })}
            >
              {name ?? 'something that is no more'}
            </button>
          ) : null
        }
      />
    </>
  );
}
