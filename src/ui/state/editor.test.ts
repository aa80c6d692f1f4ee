import { beforeEach, describe, expect, it } from 'vitest';
import { draftSystem, toPath, valueAt } from '@/core/plan';
import {
  applyEdit,
  beginGesture,
  endGesture,
  openDocument,
  openSystem,
  redoEdit,
  setValue,
  undoEdit,
  useEditor,
} from './editor';

const DRAFT = draftSystem({ name: 'Draft', vehicle: 'boat', consumer: 'diesel-engine', power_W: 40e3, holds_m3: 0.1 });
const LENGTH = toPath('tanks[0].shape.length_m.value');
const length = (): unknown => valueAt(openDocument(), LENGTH);
const history = () => useEditor.temporal.getState();
const first = valueAt(DRAFT, LENGTH);

beforeEach(() => openSystem('one', DRAFT));

describe('edits', () => {
  it('change the document under a name, and undo and redo them', () => {
    setValue('Inside length', LENGTH, 2);
    expect(useEditor.getState()).toMatchObject({ edit: 'Inside length' });
    history().undo();
    expect(length()).toBe(first);
    history().redo();
    expect(length()).toBe(2);
  });

  it('that change nothing are no step of undo', () => {
    applyEdit('nothing', (system) => system);
    expect(history().pastStates).toHaveLength(0);
  });

  it('a new edit after an undo leaves nothing to redo', () => {
    setValue('a', LENGTH, 2);
    history().undo();
    setValue('b', LENGTH, 3);
    expect(history().futureStates).toHaveLength(0);
    expect(length()).toBe(3);
  });

  it('opening another system forgets what was undone in this one', () => {
    setValue('a', LENGTH, 2);
    openSystem('two', DRAFT);
    expect(history().pastStates).toHaveLength(0);
    expect(useEditor.getState().id).toBe('two');
  });

  it('share what they do not touch', () => {
    setValue('a', LENGTH, 2);
    expect(openDocument().components).toBe(DRAFT.components);
  });
});

describe('a gesture', () => {
  it('is one step of undo, however many moves it had', () => {
    const before = openDocument();
    beginGesture();
    for (const value of [1, 1.1, 1.2, 1.3]) setValue('drag', LENGTH, value);
    endGesture(before, 'drag');
    expect(length()).toBe(1.3);
    expect(history().pastStates).toHaveLength(1);
    history().undo();
    expect(length()).toBe(first);
    history().redo();
    expect(length()).toBe(1.3);
  });

  it('that moved nothing leaves no trace, and undo works on after it', () => {
    beginGesture();
    endGesture(openDocument(), 'drag');
    expect(history().pastStates).toHaveLength(0);
    setValue('after', LENGTH, 2);
    expect(history().pastStates).toHaveLength(1);
  });
});

describe('conditions', () => {
  const PITCH = toPath('conditions.pitch_deg');
  const pitch = (): unknown => valueAt(openDocument(), PITCH);

  it('are no step of undo, and leave its name alone', () => {
    setValue('Inside length', LENGTH, 2);
    setValue('Pitch', PITCH, 12);
    expect(history().pastStates).toHaveLength(1);
    expect(useEditor.getState().edit).toBe('Inside length');
  });

  it('stay as they are when an edit is undone and redone', () => {
    setValue('Inside length', LENGTH, 2);
    setValue('Pitch', PITCH, 12);
    undoEdit();
    expect([length(), pitch()]).toEqual([first, 12]);
    setValue('Pitch', PITCH, -3);
    redoEdit();
    expect([length(), pitch()]).toEqual([2, -3]);
    expect(history().pastStates).toHaveLength(1);
  });

  it('a tank that undo brings back is filled as it was', () => {
    const [tank] = openDocument().tanks;
    applyEdit('no tank', (system) => ({ ...system, tanks: [], conditions: { ...system.conditions, fills: [] } }));
    undoEdit();
    expect(openDocument().conditions.fills).toEqual(DRAFT.conditions.fills.filter(({ tank: id }) => id === tank!.id));
  });
});
