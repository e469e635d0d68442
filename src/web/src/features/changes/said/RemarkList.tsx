import type { ReactNode } from 'react';
import type { Schemas } from '../../../api/client';
import { moment } from '../../../ui/format';

/** What was said about a look, each under the name of the item that it is about. */
export function RemarkList({
  remarks,
  nameOf,
}: {
  remarks: readonly Schemas['LookRemark'][];
  /** What an item is called that a remark is about. */
  nameOf: (remark: Schemas['LookRemark']) => ReactNode;
}) {
  if (remarks.length === 0) return <p className="text-ink-2">Nothing yet.</p>;
  return (
    <ol className="space-y-2">
      {remarks.map((remark) => (
        <li key={remark.id} className="rounded-sm border border-line bg-sheet p-2">
          {remark.kind && remark.itemId != null && (
            <p className="truncate text-[12px] font-semibold text-plum">{nameOf(remark)}</p>
          )}
          <p className="break-words whitespace-pre-wrap">{remark.text}</p>
          <p className="text-[12px] text-ink-3">
            {remark.person}, {moment(remark.madeAt)}
          </p>
        </li>
      ))}
    </ol>
  );
}
