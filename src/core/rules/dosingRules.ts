import { feedPath } from '../plan/circuits';
import { say, when, type Hit, type Rule } from './rule';

/** Common practice: wider than this a stroke is lost in the give of hose and in bubbles [m]. */
const DOSED_BORE_M = 0.003;

/** Pumps that dose by strokes: heaters live on them. */
export const DOSING_RULES: readonly Rule[] = [
  {
    id: 'pump.too-few-strokes',
    title: 'The dosing pump cannot stroke so often',
    stage: 'lines',
    severity: 'stop',
    needs: ['lines'],
    test: ({ system, evaluation }) =>
      (evaluation.lines?.primings ?? []).flatMap(({ pump, pumpName, consumerName, strokes }): Hit[] =>
        strokes && strokes.full_perS > strokes.most_perS
          ? [
              {
                what: say(
                  `At full load ${consumerName} asks ${pumpName} for {asked} strokes a second; {most} is the most that it does.`,
                  {
                    asked: { value: strokes.full_perS, role: 'count' },
                    most: { value: strokes.most_perS, role: 'count' },
                  },
                ),
                path: ['components', system.components.findIndex(({ id }) => id === pump), 'stroke_m3'],
              },
            ]
          : [],
      ),
    why: 'A heater that gets less than it counts on burns lean, soots, and goes out.',
    mend: 'The pump that belongs to the heater, of a larger stroke, or the heater set lower.',
    source: 'strokes × volume of a stroke',
    status: 'derived',
  },
  {
    id: 'pump.dosed-line-wide',
    title: 'Wide line behind a dosing pump',
    stage: 'lines',
    severity: 'note',
    test: ({ system }) =>
      system.consumers.flatMap(({ id }): Hit[] => {
        const path = feedPath(system, id);
        const at = path.findIndex((item) =>
          system.components.some((part) => part.id === item && part.kind === 'pump' && part.stroke_m3 !== undefined),
        );
        // The path begins at the consumer: what comes before the pump in it is behind the pump.
        return at < 0
          ? []
          : system.lines.flatMap((line, l) =>
              when(path.slice(0, at).includes(line.id) && line.bore_m.value > DOSED_BORE_M, () => ({
                what: say(`${line.name} is {bore} wide, and a stroke is a drop.`, {
                  bore: { value: line.bore_m.value, role: 'bore' },
                }),
                path: ['lines', l, 'bore_m'],
              })),
            );
      }),
    why: 'In a wide or soft line bubbles stay and the hose gives: the strokes arrive late and uneven, and the heater smokes.',
    mend: 'Hard line of {bore 0.002} or so, rising steadily to the heater.',
    source: 'common practice',
    status: 'common practice',
  },
];
