'use client';

import { Box } from '@chakra-ui/react';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import type { FitDrawing } from '@/core/answers';
import { MOUNT_KINDS, withMountMoved } from '@/core/plan';
import type { GripProps } from '../drawing/DrawingView';
import { dragging } from '../drawing/grips';
import { Drawn } from '../fit/FitViews';
import { Beside } from '../parts/Beside';
import { Button } from '../parts/Button';
import { Caution } from '../parts/Caution';
import { EntryFold } from '../parts/EntryFold';
import { Panel } from '../parts/Panel';
import { useOutcome } from '../state/answers';
import { applyEdit, useSystem } from '../state/editor';
import { useTank } from '../state/tankChoice';
import { usePlace } from '../workspace/goTo';
import { useEntry } from '../workspace/useEntry';
import { draggedBy, keyedBy, type View } from './dragged';
import { LayoutsPanel } from './LayoutsPanel';
import { MountFields } from './MountFields';
import { spanOf, withMount } from './mountEdits';
import { KIND_WORDS, mountNote } from './mountWords';

/** The mounts of a tank on its drawing, and each one's fields beside it. */
export function LayoutTask() {
  const t = useTank();
  const system = useSystem();
  const tank = system.tanks[t]!;
  const { value: drawing, fresh } = useOutcome('mountDrawing', t);
  const own = system.mounts.flatMap((mount, m) => (mount.tank === tank.id ? [{ mount, m }] : []));
  const [entry, choose] = useEntry(system.mounts, ['mounts']);
  const { path, asked } = usePlace();
  // All are folded to begin with, but for one that was led to.
  const [folded, fold] = useState(() => (path?.startsWith('mounts.') ? undefined : system.mounts[0]?.id));
  const [followed, setFollowed] = useState(asked);
  if (asked !== followed) {
    setFollowed(asked);
    if (path?.startsWith('mounts.')) fold(undefined);
  }
  const open = system.mounts[entry]?.id;
  const isOpen = (id: string): boolean => id === open && id !== folded;
  const toggle = (m: number, id: string, to: boolean): void => {
    if (to) choose(m);
    if (to || isOpen(id)) fold(to ? undefined : id);
  };
  if (own.length === 0) return <LayoutsPanel isFirst />;
  return (
    <>
      <Beside
        picture={
          <Panel title={`What holds ${tank.name}`} testId="mount-picture">
            {drawing?.ok ? (
              <Box opacity={fresh ? 1 : 0.6}>
                <Drawn
                  seen={drawing.value}
                  gap={undefined}
                  moving={undefined}
                  title={`${tank.name} with what holds it: side, end and plan to one scale`}
                  gripOf={(id, name, view, mmPerM) => {
                    const m = system.mounts.findIndex((one) => one.id === id);
                    return m < 0 ? undefined : gripOf(m, name, view, mmPerM, () => toggle(m, id, true));
                  }}
                  chosen={open === folded ? undefined : open}
                />
              </Box>
            ) : (
              <Box color={drawing ? 'stop' : 'soft'} role={drawing ? 'alert' : undefined}>
                {drawing ? drawing.error.detail : 'Drawing…'}
              </Box>
            )}
            <Box color="soft" mt="2">
              Draw a mount along the tank, or use the arrow keys; with Alt they move it up and down.
            </Box>
            <Box mt="3">
              <Caution>
                A tank that breaks loose kills. Where people ride with it, on a road or at sea, the rules in force and
                someone licensed decide what holds it; weld only on a tank that never held fuel, or that was made safe.
              </Caution>
            </Box>
          </Panel>
        }
      >
        <Panel title="Mounts" testId="mounts" aside={drawing?.ok ? <AddMount drawing={drawing.value} /> : undefined}>
          {own.map(({ mount, m }) => (
            <EntryFold
              key={mount.id}
              path={['mounts', m]}
              name={mount.name}
              note={mountNote(mount)}
              isOpen={isOpen(mount.id)}
              onToggle={(to) => toggle(m, mount.id, to)}
            >
              <MountFields mount={mount} m={m} span={drawing?.ok ? spanOf(drawing.value) : undefined} />
            </EntryFold>
          ))}
        </Panel>
      </Beside>
      <LayoutsPanel isFirst={false} />
    </>
  );
}

/** A press opens its fields; drawn along, or by arrow keys, it moves over its tank. */
const gripOf = (m: number, name: string, view: View, mmPerM: number, press: () => void): GripProps => ({
  role: 'button',
  tabIndex: 0,
  'aria-label': `Fields of ${name}; move it with the arrow keys`,
  // Widths in a drawing are millimetres of its sheet.
  style: { cursor: 'grab', touchAction: 'none', outlineWidth: '0.7px', outlineOffset: '0.4px' },
  onClick: press,
  onPointerDown: dragging(`move ${name}`, (before, [right, down]) =>
    withMountMoved(before, m, draggedBy(view, right, down, mmPerM)),
  ),
  onKeyDown: (event) => {
    const by = keyedBy(event);
    if (by) applyEdit(`move ${name}`, (current) => withMountMoved(current, m, by));
    else if (event.key === 'Enter' || event.key === ' ') press();
    else return;
    event.preventDefault();
  },
});

/** One more mount, of a kind that is pressed. */
function AddMount({ drawing }: { readonly drawing: FitDrawing }) {
  const t = useTank();
  const [isOpen, setOpen] = useState(false);
  if (!isOpen)
    return (
      <Button onClick={() => setOpen(true)}>
        <Plus size={18} aria-hidden />
        Mount
      </Button>
    );
  return (
    <Box display="flex" gap="2" flexWrap="wrap" justifyContent="flex-end">
      {MOUNT_KINDS.map((kind) => (
        <Button
          key={kind}
          onClick={() => {
            applyEdit(`add a ${KIND_WORDS[kind].toLowerCase()}`, (current) =>
              withMount(current, t, kind, spanOf(drawing)),
            );
            setOpen(false);
          }}
        >
          {KIND_WORDS[kind]}
        </Button>
      ))}
    </Box>
  );
}
