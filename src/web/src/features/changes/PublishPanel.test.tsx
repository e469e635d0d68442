// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { api, type Schemas } from '../../api/client';
import { Within } from '../../testing/Within';
import { PublishPanel } from './PublishPanel';
import { usePublishing } from './usePublishing';

const publish = (more: Partial<Schemas['PublishSummary']>): Schemas['PublishSummary'] => ({
  id: 7,
  state: 'interrupted',
  problem: 'The network does not answer.',
  total: 20,
  accepted: 8,
  refused: 0,
  changedSince: 0,
  leftOut: 0,
  left: 12,
  madeAt: '2026-05-12T09:00:00Z',
  person: 'Morag Kerr',
  ...more,
});

const said = (data: unknown) => Promise.resolve({ data, response: new Response() }) as never;

function WithPublishing() {
  const publishing = usePublishing();
  return (
    <PublishPanel
      counts={[]}
      publishing={publishing}
      goesOut={5}
      isPart={false}
      onPublish={vi.fn<() => void>()}
    />
  );
}

function show(publishes: Schemas['PublishSummary'][], unpublished: Schemas['UnpublishedItem'][] = []) {
  vi.spyOn(api, 'GET').mockImplementation(((path: string) =>
    said(
      path.endsWith('/publishes')
        ? publishes
        : path.endsWith('/unpublished')
          ? unpublished
          : path.endsWith('/looks')
            ? []
            : { counting: false, blockers: 0, setAside: [] },
    )) as never);
  const sent = vi
    .spyOn(api, 'POST')
    .mockImplementation(() => said({ id: 3, kind: 'publish', state: 'done' }));
  render(
    <Within>
      <WithPublishing />
    </Within>,
  );
  return sent;
}

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

describe('a publish that was interrupted', () => {
  it('says why, how far it came, and offers every way on', async () => {
    show([publish({})]);
    expect((await screen.findByRole('alert')).textContent).toContain('The network does not answer.');
    expect(screen.getByText(/8 of 20 are on the network; 12 are left/)).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Publish 5 changes as they stand now' })).toBeTruthy();
  });

  it.each([
    ['Send the rest', '/api/accounts/{accountId}/publishes/{publishId}/continue'],
    ['Give up the rest', '/api/accounts/{accountId}/publishes/{publishId}/abandon'],
  ])('%s does just that', async (name, path) => {
    const sent = show([publish({})]);
    fireEvent.click(await screen.findByRole('button', { name }));
    expect(sent.mock.calls[0]?.[0]).toBe(path);
  });
});

describe('a publish that is done', () => {
  it('names what was left out and what was changed on the network meanwhile', async () => {
    show(
      [publish({ state: 'done', problem: null, accepted: 18, changedSince: 1, leftOut: 1, left: 0 })],
      [
        {
          kind: 'keyword',
          id: 1,
          name: 'piano hire',
          campaign: null,
          adGroup: null,
          outcome: 'leftOut',
          reason: 'It was edited again.',
        },
        {
          kind: 'keyword',
          id: 2,
          name: 'piano tuner',
          campaign: null,
          adGroup: null,
          outcome: 'changedSince',
          reason: 'Somebody changed it.',
        },
      ],
    );
    expect(await screen.findByText('piano hire')).toBeTruthy();
    expect(screen.getByText('It was edited again.')).toBeTruthy();
    expect(screen.getByText('Changed on the network meanwhile')).toBeTruthy();
    expect(screen.queryByRole('alert')).toBeNull();
  });
});
