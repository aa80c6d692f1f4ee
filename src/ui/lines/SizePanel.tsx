'use client';

import { Box, chakra } from '@chakra-ui/react';
import { flowRole, stockOf } from '@/core/plan';
import { COMFORT_RATIO, sizedLines, withLineStock, type SizeRow } from '@/core/answers';
import { LINE_SERIES, lineStock, nearestStock } from '@/core/reference/lineStock';
import { Select } from '../fields/Select';
import { TextEntry } from '../fields/TextEntry';
import { Panel } from '../parts/Panel';
import { Practice } from '../parts/Practice';
import { Quantity } from '../parts/Quantity';
import { useOutcome } from '../state/answers';
import { applyEdit, useSystem, useValue } from '../state/editor';
import { useChosenPart } from './chosenPart';
import { cardTable } from '../parts/cardTable';

/** What a line would do in every size that it is sold in; one press takes it. */
export function SizePanel() {
  const system = useSystem();
  const { id, choose } = useChosenPart();
  const lines = sizedLines(system);
  const line = lines.find((each) => each.id === id) ?? lines[0];
  const answer = useOutcome('sizes', line?.id ?? '');
  if (!line) return null;
  const table = answer.value?.ok && answer.value.value.line === line.id ? answer.value.value : undefined;
  const heads = ['size', 'bore', `to ${table?.serves ?? ''}`, 'time', 'speed', 'holds', 'price a metre', 'costs', ''];
  const series = table?.series ?? stockOf(line)?.series ?? '';
  return (
    <Panel title="Line size" testId="sizes">
      <Box
        display="grid"
        gridTemplateColumns="repeat(auto-fit, minmax(min(100%, 260px), 1fr))"
        gap="3"
        mb="3"
        alignItems="start"
      >
        <Select
          label="Line to size"
          value={line.id}
          options={lines.map((each) => ({ value: each.id, label: each.name }))}
          onChange={choose}
        />
        <Select
          label="Cut from"
          value={series}
          options={LINE_SERIES.map(({ key, name }) => ({ value: key, label: name }))}
          onChange={(key) =>
            applyEdit('kind of line', (current) => {
              const l = current.lines.findIndex((each) => each.id === line.id);
              return withLineStock(current, l, nearestStock(key, line.bore_m.value));
            })
          }
        />
        <Practice of="lineFor" />
      </Box>
      {table && (
        <Box
          overflowX="auto"
          position="relative"
          tabIndex={0}
          role="region"
          aria-label="Sizes of the line"
          opacity={answer.fresh ? 1 : 0.5}
        >
          <chakra.table width="100%" minW="700px" borderCollapse="collapse" css={cardTable(heads)}>
            <thead>
              <tr>
                {heads.map((head, i) => (
                  <chakra.th key={i} px="2" textAlign={i > 0 && i < 6 ? 'right' : 'left'} color="soft" fontWeight="600">
                    {head}
                  </chakra.th>
                ))}
              </tr>
            </thead>
            <tbody>
              {table.rows.map((row) => (
                <Row key={row.stock} row={row} line={line.id} />
              ))}
            </tbody>
          </chakra.table>
        </Box>
      )}
      {table && (
        <Box fontSize="sm" color="soft" mt="2">
          Everything else as it is. Time is for <Quantity value={table.volume_m3} role="tankVolume" /> at this flow;
          what it holds runs out when it is opened low. Prices are your own, in any money.
        </Box>
      )}
    </Panel>
  );
}

function Row({ row, line }: { readonly row: SizeRow; readonly line: string }) {
  const later = useValue((system) => system.practice.lineFor === 'later');
  const take = (): void =>
    applyEdit(`line size ${row.name}`, (system) =>
      withLineStock(
        system,
        system.lines.findIndex(({ id }) => id === line),
        lineStock(row.stock)!,
      ),
    );
  const enough =
    row.margin_ratio === undefined
      ? undefined
      : row.margin_ratio >= COMFORT_RATIO
        ? 'good'
        : row.margin_ratio >= 1
          ? 'warn'
          : 'stop';
  return (
    <chakra.tr
      borderTopWidth="1px"
      borderColor="rule"
      bg={row.isNow ? 'sunk' : undefined}
      data-testid="size-row"
      data-now={row.isNow}
    >
      <chakra.td px="2" fontWeight="700" whiteSpace="nowrap">
        {row.name}
        {row.suggested && (
          <Box fontSize="sm" color="good">
            {later ? '● one over enough' : '● the least that is enough'}
          </Box>
        )}
      </chakra.td>
      <chakra.td px="2" textAlign="right" whiteSpace="nowrap">
        <Quantity value={row.bore_m} role="bore" />
      </chakra.td>
      <chakra.td px="2" textAlign="right" whiteSpace="nowrap" fontWeight="700" color={enough}>
        {row.flow_m3PerS === undefined ? (
          'not known'
        ) : (
          <>
            <Box as="span" aria-hidden>
              {enough === 'stop' ? '■ ' : enough === 'warn' ? '▲ ' : ''}
            </Box>
            <Quantity value={row.flow_m3PerS} role={flowRole(row.flow_m3PerS)} />
          </>
        )}
      </chakra.td>
      <chakra.td px="2" textAlign="right" whiteSpace="nowrap">
        {row.time_s === undefined ? (
          row.flow_m3PerS === undefined ? (
            'not known'
          ) : row.flow_m3PerS > 0 ? (
            'not all of it'
          ) : (
            'never'
          )
        ) : (
          <Quantity value={row.time_s} role="duration" />
        )}
      </chakra.td>
      <chakra.td px="2" textAlign="right" whiteSpace="nowrap">
        {row.velocity_mPerS === undefined ? '' : <Quantity value={row.velocity_mPerS} role="lineSpeed" />}
      </chakra.td>
      <chakra.td px="2" textAlign="right" whiteSpace="nowrap">
        <Quantity value={row.holds_m3} role="smallVolume" />
      </chakra.td>
      <chakra.td px="2" width="110px">
        <Price stock={row.stock} name={row.name} />
      </chakra.td>
      <chakra.td px="2" textAlign="right">
        {row.cost === undefined ? '' : row.cost.toFixed(2)}
      </chakra.td>
      <chakra.td px="2" py="1" textAlign="right">
        {row.isNow ? (
          <Box as="span" color="soft">
            is there now
          </Box>
        ) : (
          <chakra.button
            type="button"
            onClick={take}
            minH="42px"
            px="3"
            borderWidth="1.5px"
            borderColor="edge"
            borderRadius="md"
            fontWeight="650"
            cursor="pointer"
            aria-label={`Use ${row.name}`}
          >
            Use
          </chakra.button>
        )}
      </chakra.td>
    </chakra.tr>
  );
}

function Price({ stock, name }: { readonly stock: string; readonly name: string }) {
  const price = useSystem().prices.find((each) => each.stock === stock)?.perMetre;
  const enter = (text: string) => {
    const value = Number(text.replace(',', '.'));
    if (text.trim() !== '' && !(Number.isFinite(value) && value >= 0 && value <= 1e5))
      return { ok: false as const, message: 'A price is a number, 0 or more.' };
    applyEdit(`price of ${name}`, (system) => ({
      ...system,
      prices: [
        ...system.prices.filter((each) => each.stock !== stock),
        ...(text.trim() === '' ? [] : [{ stock, perMetre: value }]),
      ],
    }));
    return { ok: true as const };
  };
  return (
    <TextEntry
      label={`Price of a metre of ${name}`}
      hideLabel
      quiet
      value={price === undefined ? '' : String(price)}
      onEnter={enter}
    />
  );
}
