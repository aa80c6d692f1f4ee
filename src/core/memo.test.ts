import { describe, expect, it } from 'vitest';
import { computations, forgetAnswers, interned, memoized, memoizedSteps, withoutMemory } from './memo';
import { allSteps } from './steps';

describe('memoized', () => {
  it('works out once what is asked with equal arguments, and gives back the very same answer', () => {
    const sizes = memoized('test: sizes', (size: { readonly a: number }) => ({ double: 2 * size.a }));
    const first = sizes({ a: 1 });
    expect(sizes({ a: 1 })).toBe(first);
    expect(sizes.computed()).toBe(1);
    expect(sizes({ a: 2 })).toEqual({ double: 4 });
    expect(computations()['test: sizes']).toBe(2);
  });

  it('tells apart what differs anywhere: deep down, in length, in typed arrays, by what is absent', () => {
    const print = memoized('test: print', (value: unknown) => JSON.stringify(value));
    const values: unknown[] = [
      { a: [1, { b: 2 }] },
      { a: [1, { b: 3 }] },
      { a: [1] },
      {},
      { c: new Float64Array([1, 2]) },
      { c: new Float64Array([1, 3]) },
      { c: new Float64Array([1]) },
    ];
    values.forEach((value) => print(value));
    expect(print.computed()).toBe(values.length);
    expect(print(structuredClone(values[4]))).toBe(JSON.stringify(values[4]));
    expect(print.computed()).toBe(values.length);
  });

  it('an argument left out is not one that is given', () => {
    const count = memoized('test: count', (...args: readonly unknown[]) => args.length);
    expect([count(1), count(1, undefined), count(1)]).toEqual([1, 2, 1]);
  });

  it('remembers the latest so many, and forgets all when told to', () => {
    const square = memoized('test: square', (n: number) => n * n, 2);
    [1, 2, 1, 3, 1, 2].forEach((n) => square(n));
    expect(square.computed()).toBe(4);
    forgetAnswers();
    square(1);
    expect(square.computed()).toBe(5);
  });

  it('works each time where nothing is to be remembered, and remembers again afterwards', () => {
    const twice = memoized('test: each time', (n: number) => ({ n }));
    const first = twice(1);
    const [a, b] = withoutMemory(() => [twice(1), twice(1)]);
    expect(a).not.toBe(first);
    expect(b).not.toBe(a);
    expect(twice(1)).toBe(first);
    expect(() => withoutMemory(() => JSON.parse('{'))).toThrow();
    expect(twice(1)).toBe(first);
  });

  it('in steps: works once, is known afterwards without a step, and forgets what was left off', () => {
    let steps = 0;
    const slow = memoizedSteps('test: steps', function* (n: number) {
      for (let i = 0; i < 3; i++) {
        steps++;
        yield;
      }
      return { n };
    });
    const leftOff = slow(1);
    leftOff.next();
    expect(steps).toBe(1);
    const first = allSteps(slow(1));
    expect(first).toEqual({ n: 1 });
    expect(steps).toBe(4);
    expect(allSteps(slow(1))).toBe(first);
    expect(steps).toBe(4);
    expect(slow(1).next()).toEqual({ done: true, value: first });
  });

  it('what throws is asked again', () => {
    let fails = true;
    const once = memoized('test: throws', () => {
      if (fails) throw new Error('broke');
      return 1;
    });
    expect(() => once()).toThrow('broke');
    fails = false;
    expect(once()).toBe(1);
  });

  it('interned: of what comes out alike, the one that came first', () => {
    const intern = interned<{ readonly n: number }>('test: interned');
    const first = intern({ n: 1 });
    expect(intern({ n: 1 })).toBe(first);
    expect(intern({ n: 2 })).not.toBe(first);
  });
});
