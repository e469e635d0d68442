// @vitest-environment jsdom
import { describe, expect, it } from 'vitest';
import { answer, ApiProblem, problemOf } from './client';

const response = (status: number) => new Response(null, { status });

describe('answers of the server', () => {
  it('are handed on when all is well', async () => {
    expect(await answer(Promise.resolve({ data: 7, response: response(200) }))).toBe(7);
  });

  it('become a problem with its title and fields', async () => {
    const error = {
      title: 'The amount must be above zero.',
      errors: { value: ['The amount must be above zero.'] },
    };
    const problem = await answer(Promise.resolve({ error, response: response(422) })).catch(
      (thrown: unknown) => thrown,
    );
    expect(problem).toBeInstanceOf(ApiProblem);
    expect((problem as ApiProblem).message).toBe('The amount must be above zero.');
    expect(Object.keys((problem as ApiProblem).fields)).toEqual(['value']);
  });

  it('say what to do when there is none', async () => {
    const problem = await answer(Promise.reject(new TypeError('fetch failed'))).catch(
      (thrown: unknown) => thrown,
    );
    expect((problem as ApiProblem).message).toContain('does not answer');
  });

  it('are a problem even without a title', () => {
    expect(problemOf(500, '<html>').message).toBe('The request failed (500).');
  });
});
