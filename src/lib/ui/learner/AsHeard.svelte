<script lang="ts">
  /** What the ear heard of a learner's pieces: how much of each measure was right, week by week, and what keeps going wrong. */
  import type { HeardHistory } from '$core/lessons/heardHistory';
  import { plural, shortDate } from '$ui/text';

  interface Props {
    pieces: readonly { readonly id: string; readonly title: string; readonly history: HeardHistory }[];
  }
  let { pieces }: Props = $props();

  const percent = (share: number): number => Math.round(share * 100);
</script>

<section class="mt-8" aria-labelledby="heard">
  <h2 id="heard">As heard</h2>
  <p class="text-quiet">
    Right notes in each measure, from takes the program heard in lessons and in the practice room. A full box
    is all of them.
  </p>
  {#each pieces as { id, title, history } (id)}
    <div class="mt-3">
      <h3 class="font-semibold">{title}</h3>
      <p class="text-sm text-quiet">{plural(history.takes, 'take')} heard</p>
      <!-- It scrolls sideways where there are many measures. -->
      <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
      <div class="mt-1 overflow-x-auto" tabindex="0" role="group" aria-label="{title}, measure by measure">
        <table class="text-sm">
          <thead>
            <tr>
              <th class="pr-3 text-left font-normal text-quiet" scope="col">week of</th>
              {#each history.measures as m (m.id)}<th class="px-0.5 font-normal" scope="col">{m.number}</th
                >{/each}
            </tr>
          </thead>
          <tbody>
            {#each history.weeks as week, w (week)}
              <tr>
                <th class="pr-3 text-left font-normal whitespace-nowrap text-quiet" scope="row"
                  >{shortDate(week)}</th
                >
                {#each history.measures as m (m.id)}
                  {@const share = m.byWeek[w] ?? null}
                  <td class="p-0.5">
                    {#if share === null}
                      <span class="block h-7 w-7"><span class="sr-only">not heard</span></span>
                    {:else}
                      <span
                        class="flex h-7 w-7 flex-col justify-end border border-field"
                        title="{percent(share)}%"
                      >
                        <span class="block bg-accent" style:height="{percent(share)}%"></span>
                        <span class="sr-only">{percent(share)}% right</span>
                      </span>
                    {/if}
                  </td>
                {/each}
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
      {#if history.slips.length > 0}
        <p class="mt-1">
          Keeps going wrong: {history.slips
            .map(({ number, slip, times, of }) => `measure ${number}, ${slip} (${times} of ${of} takes)`)
            .join('; ')}.
        </p>
      {/if}
    </div>
  {/each}
</section>
