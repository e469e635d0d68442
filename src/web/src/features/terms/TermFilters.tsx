import { useEffect, useState } from 'react';
import { ConditionChips } from '../../sheet/views/ConditionChips';
import { useSheetFields } from '../../sheet/views/useSheetFields';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { goHome, leadsHome } from '../../ui/home';
import type { TermRequest } from './useTerms';

const decided = [
  { value: 'no', label: 'not decided yet' },
  { value: 'yes', label: 'decided' },
  { value: 'all', label: 'decided or not' },
] as const;

interface Props {
  request: TermRequest;
  onChange: (part: Partial<TermRequest>) => void;
}

/** Which terms are shown. */
export function TermFilters({ request, onChange }: Props) {
  const figures = (useSheetFields().data ?? []).filter((field) => field.isFigure);
  const turn = (part: Partial<TermRequest>) => {
    onChange(part);
    goHome();
  };
  return (
    <div
      role="search"
      {...leadsHome}
      className="flex flex-wrap items-center gap-1.5 border-b border-line bg-paper px-2.5 py-1.5"
    >
      <TextFilter text={request.text ?? ''} onText={(text) => onChange({ text: text || null })} />
      <Choice
        label="Decided"
        value={request.decided === null ? 'all' : request.decided ? 'yes' : 'no'}
        options={decided}
        onChange={(next) => onChange({ decided: next === 'all' ? null : next === 'yes' })}
      />
      <Button
        pressed={request.withoutKeyword}
        onClick={() => turn({ withoutKeyword: !request.withoutKeyword })}
      >
        No keyword
      </Button>
      <Button pressed={request.new} onClick={() => turn({ new: !request.new })}>
        New
      </Button>
      <Button pressed={request.several} onClick={() => turn({ several: !request.several })}>
        Several groups
      </Button>
      <ConditionChips
        fields={figures}
        conditions={request.conditions}
        onConditions={(conditions) => onChange({ conditions })}
      />
      {request.word && (
        <Button pressed onClick={() => turn({ word: null })}>
          with “{request.word}” ×
        </Button>
      )}
    </div>
  );
}

const typingRests = 250;

function TextFilter({ text, onText }: { text: string; onText: (text: string) => void }) {
  const [typed, setTyped] = useState(text);
  useEffect(() => {
    if (typed === text) return;
    const timer = setTimeout(() => onText(typed), typingRests);
    return () => clearTimeout(timer);
  }, [typed, text, onText]);
  return (
    <input
      type="search"
      data-filter
      aria-label="Find terms"
      placeholder="Contains…"
      className="w-[136px] rounded-sm border border-line-strong bg-white px-2 py-[3px]"
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && typed === '') goHome();
        if (event.key === 'Enter' || event.key === 'ArrowDown') {
          onText(typed);
          goHome();
          event.preventDefault();
        }
      }}
    />
  );
}
