import { joinablePairs, transferDesign, ventDesign } from '@/core/answers';
import { allSteps } from '@/core/steps';
import { messageText } from '@/core/units';
import { failed, type Verb } from './verb';

/** JSON has no infinity: where no rise helps is null. */
const finite = (value: number): number | null => (Number.isFinite(value) ? value : null);

export const vents: Verb = {
  name: 'vents',
  summary: 'what each tank’s vent has to be: for filling, drawing, leaning and warming; ways from tank to tank',
  prints:
    'tanks[]: id, name, ok; fill_m3PerS, draw_m3PerS, drawn[] (name, flow_m3PerS), drawUnknown (why it is not known what pumps move out of it, or null), over and under (value_Pa, by: said, usual or walls), wall (weakest flat: normal, wide_m, long_m, yields_Pa, bulge_m) or null and whyNoWall, hoseLength_m, sizes[] (kind, bore_m, under_Pa, over_Pa, isEnough), least (hole and hose, bore [m] or null), now (its own vents together) or null, rises[] (id, name, standing_m, moving_m; null: no rise helps; end: name, isPlaced and over (over: water or ground, level_m, and over water leaning_m, at the slopes asked for), null where not known), heat (ok; cold_K, hot_K, filled_m3, hot_m3, free_m3, over_m3, most_ratio, corrections[] (temperature_K, factor_ratio: volume at 15 °C over volume, volume_m3, isExtrapolated), locked_PaPerK), can_m3 or null; or error. transfers[]: from, to, by (pump, gravity, vacuum, selector), isThere, ok, first_m3PerS, emptied_s or null, left_m3, spilt_m3, starves or null, lasts_s, verdict[], stands[] (id, name, moving, resting); or error',
  needs: 'nothing',
  run: (system) => ({
    system: system.name,
    tanks: system.tanks.map(({ id, name }, t) => {
      const design = ventDesign(system, t);
      if (!design.ok) return { id, name, ...failed(design.error) };
      const { heat, rises, wall, whyNoWall, least, now, can_m3, drawUnknown, ...rest } = design.value;
      return {
        id,
        name,
        ok: true,
        ...rest,
        drawUnknown: drawUnknown ?? null,
        wall: wall ?? null,
        whyNoWall: whyNoWall ?? null,
        least: { hole: least.hole ?? null, hose: least.hose ?? null },
        now: now ?? null,
        rises: rises.map(({ end, ...rise }) => ({
          ...rise,
          standing_m: finite(rise.standing_m),
          moving_m: finite(rise.moving_m),
          end: end ? { ...end, over: end.over ?? null } : null,
        })),
        heat: heat.ok ? { ok: true, ...heat.value } : failed(heat.error),
        can_m3: can_m3 ?? null,
      };
    }),
    transfers: joinablePairs(system).flatMap(([s, t]): unknown[] => {
      const [from, to] = [system.tanks[s]!.id, system.tanks[t]!.id];
      const results = allSteps(transferDesign(system, s, t));
      if (!results.ok) return [{ from, to, ...failed(results.error) }];
      return results.value.map(({ by, isThere, outcome }) => {
        if (!outcome.ok) return { from, to, by, isThere, ...failed(outcome.error) };
        const { emptied_s, starves, verdict, ...course } = outcome.value;
        return {
          from,
          to,
          by,
          isThere,
          ok: true,
          ...course,
          emptied_s: emptied_s ?? null,
          starves: starves ?? null,
          verdict: verdict.map(({ severity, says }) => ({ severity, says: messageText(says, 'metric') })),
        };
      });
    }),
  }),
};
