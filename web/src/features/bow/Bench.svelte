<script lang="ts">
  import NameParts from '../../components/NameParts.svelte';
  import Strip from '../../components/Strip.svelte';
  import Callout from '../../drawings/bench/Callout.svelte';
  import BenchDrawing from '../../drawings/bench/BenchDrawing.svelte';
  import { BenchView } from '../../drawings/bench/view.svelte';
  import type { Assessment, PageOf, Stage, Value } from '../../lib/api';
  import { keys } from '../../lib/keys.svelte';
  import { figure } from '../../lib/preferences.svelte';
  import { deg, joules, lbf, lbfPerIn, mm, sixteenths, type Figure } from '../../lib/units';
  import { Names } from '../../lib/terms.svelte';
  import { valueOf } from '../../lib/values';
  import { shown } from './about';

  let { assessment, stage, page }: { assessment: Assessment; stage: Stage; page: PageOf<'bow'> } =
    $props();

  const drawing = $derived(page.bench);
  const names = new Names('bench');
  const view = new BenchView(() => drawing);
  const atOwn = $derived(drawing.own_mm != null && Math.abs(view.draw - view.full) < 0.5);
  const family = $derived(valueOf(stage, 'family')?.text ?? 'family not told');
  const bow = $derived(assessment.fitted.find((part) => part.part === 'bow')?.name ?? 'The bow');
  const archer = $derived(assessment.stages.find((one) => one.key === 'archer') ?? null);
  const hand = $derived(valueOf(archer, 'hand')?.choice);
  const drawLength = $derived(valueOf(archer, 'draw_length')?.figure);
  const assumed = $derived(drawing.assumed.filter((part) => part !== 'brace' || !drawing.refused));
  const title = $derived([
    [[bow, hand ? `${hand} hand` : null].filter(Boolean).join(', ')],
    [family],
    [`entry ${assessment.entry_count}`, 'from the mechanics'],
    ...(assumed.length ? [[`assumed: ${assumed.join(', ')}`]] : []),
  ]);
  const margin = $derived(drawing.onset_mm != null ? drawing.onset_mm - view.draw : null);

  function value(key: string, label: string, said: Figure | null, missing: string): Value {
    return { key, label, figure: said, text: null, missing, entries: [] };
  }
  const live = $derived([
    value(
      'weight',
      'on the scale',
      view.pose.weight_lbf === null
        ? null
        : lbf(view.pose.weight_lbf, atOwn ? drawing.weight_plus_minus_lbf : null),
      'no mark or scale yet',
    ),
    value(
      'slope',
      'grows here',
      view.pose.lbf_per_in === null ? null : lbfPerIn(view.pose.lbf_per_in),
      'no mark or scale yet',
    ),
    value(
      'energy',
      'stored',
      view.pose.energy_j === null ? null : joules(view.pose.energy_j),
      'no mark or scale yet',
    ),
    value(
      'margin',
      margin !== null && margin < 0 ? 'past the onset of stack' : 'before stack',
      margin === null ? null : mm(Math.abs(margin)),
      'beyond what is computed',
    ),
    value('finger', 'at the hook', deg(view.pose.finger_angle_deg), ''),
  ]);
  const plusMinus = $derived(
    drawing.weight_plus_minus_lbf == null
      ? 'no weight yet'
      : `± ${figure(lbf(drawing.weight_plus_minus_lbf))}`,
  );
  const shaft = $derived(page.shaft_length_mm ?? null);

  $effect(() => keys.onDraw(view.drawIt));
</script>

<BenchDrawing {view} {shaft} {title} {plusMinus} terms={names.terms}>
  {#snippet callouts()}
    {#if !view.narrow}
      <Callout
        label="length along the back"
        word="bow"
        shown={shown(stage, 'bow_length') ?? `taken as ${figure(mm(drawing.bow_length_mm))}`}
        known={shown(stage, 'bow_length') !== null}
        left={view.W / 2 - 74}
        top={0}
        width={148}
      />
      <Callout
        label="brace"
        word="brace"
        shown={shown(stage, 'brace_height') ?? `taken as ${figure(mm(drawing.brace_height_mm))}`}
        known={shown(stage, 'brace_height') !== null}
        left={view.W / 2 + 44}
        top={view.at(view.rest) + 8}
        width={116}
      />
      <Callout
        label="weight here"
        word="scale"
        tail="@ {sixteenths(view.draw)}"
        shown={view.pose.weight_lbf === null ? 'e.g. 36.2 lb' : figure(lbf(view.pose.weight_lbf))}
        known={view.pose.weight_lbf !== null}
        left={view.W / 2 + 44}
        top={view.at(view.rest) + 60}
        width={116}
      />
      <Callout
        label="your draw"
        word="draw"
        shown={drawLength ? figure(drawLength) : 'e.g. 27 3/8'}
        known={!!drawLength}
        left={view.W / 2 - 44 - 116}
        top={view.at(view.rest) + 8}
        width={116}
      />
    {/if}
  {/snippet}
</BenchDrawing>
<div class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm text-soft">
  <span>
    String at <strong class="text-ink">{figure(mm(view.draw))}</strong>. Drag the red handle, or use
    the arrow keys on it.
  </span>
  <button class="quiet" onclick={view.drawIt}>
    Draw it to {drawing.own_mm == null ? figure(mm(view.full)) : 'your hook'}
  </button>
  <NameParts {names} />
</div>
<div class="mt-2"><Strip values={live} /></div>
