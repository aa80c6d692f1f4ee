import { ventDesign } from '@/core/answers';
import { failed, type Verb } from './verb';

/** JSON has no infinity: where no rise helps is null. */
const finite = (value: number): number | null => (Number.isFinite(value) ? value : null);

export const vents: Verb = {
  name: 'vents',
  summary: 'what each tank’s vent has to be: for filling, drawing, leaning and warming',
  prints:
    'tanks[]: id, name, ok; fill_m3PerS, draw_m3PerS, drawn[] (name, flow_m3PerS), over and under (value_Pa, by: said, usual or walls), wall (weakest flat: normal, wide_m, long_m, yields_Pa, bulge_m) or null and whyNoWall, hoseLength_m, sizes[] (kind, bore_m, under_Pa, over_Pa, isEnough), least (hole and hose, bore [m] or null), now (its own vents together) or null, rises[] (id, name, standing_m, moving_m; null: no rise helps), heat (ok; cold_K, hot_K, filled_m3, hot_m3, free_m3, over_m3, most_ratio), can_m3 or null; or error',
  needs: 'nothing',
  run: (system) => ({
    system: system.name,
    tanks: system.tanks.map(({ id, name }, t) => {
      const design = ventDesign(system, t);
      if (!design.ok) return { id, name, ...failed(design.error) };
      const { heat, rises, wall, whyNoWall, least, now, can_m3, ...rest } = design.value;
      return {
        id,
        name,
        ok: true,
        ...rest,
        wall: wall ?? null,
        whyNoWall: whyNoWall ?? null,
        least: { hole: least.hole ?? null, hose: least.hose ?? null },
        now: now ?? null,
        rises: rises.map((rise) => ({ ...rise, standing_m: finite(rise.standing_m), moving_m: finite(rise.moving_m) })),
        heat: heat.ok ? { ok: true, ...heat.value } : failed(heat.error),
        can_m3: can_m3 ?? null,
      };
    }),
  }),
};
