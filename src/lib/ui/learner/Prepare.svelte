<script lang="ts">
  /** What can be prepared: who is stuck, what is promised, who needs a piece, which version nobody has signed. */
  import { stepInSentence } from '$core/lessons/steps';
  import { levelText } from '$core/arrange/levels';
  import { GOAL_TEXTS, plural, shortDate, spanText } from '$ui/text';

  interface Props {
    stuck: readonly {
      id: string;
      name: string;
      title: string;
      assignment: string;
      at: { where: string; step: { says: string } };
    }[];
    promised: readonly {
      learner: string;
      name: string;
      title: string;
      assignment: string;
      date: string;
      days: number;
      estimate: { from: string; to: string; goal: 'met' | 'perhaps' | 'missed' | null } | null;
    }[];
    needPiece: readonly { id: string; name: string; level: number }[];
    unsigned: readonly { id: string; title: string; level: number; names: string | null }[];
    /** In the main column of a free day. */
    isWide?: boolean;
  }
  let { stuck, promised, needPiece, unsigned, isWide = false }: Props = $props();
</script>

<div
  class={isWide ? 'mt-6 grid gap-x-12 gap-y-7 border-t border-hairline pt-5 sm:grid-cols-2' : 'grid gap-7'}
>
  {#if stuck.length > 0}
    <section aria-labelledby="stuck">
      <h2 id="stuck">Stuck</h2>
      <ul class="grid gap-1">
        {#each stuck as { id, name, title, assignment, at } (id)}
          <li>
            <a class="font-semibold hover:text-accent" href="/learners/{id}">{name}</a> has been stuck for two
            lessons:
            <a class="hover:text-accent" href="/assignments/{assignment}"
              >{title}, {at.where}, {stepInSentence(at.step.says)}</a
            >.
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  {#if promised.length > 0}
    <section aria-labelledby="promised">
      <h2 id="promised">Goal dates</h2>
      <ul class="grid gap-1">
        {#each promised as { learner, name, title, assignment, date, days, estimate } (learner + assignment)}
          <li>
            {name}: <a class="hover:text-accent" href="/assignments/{assignment}">{title}</a>, goal {shortDate(
              date,
            )}{days < 0 ? ' (past)' : days < 14 ? ` (in ${plural(days, 'day')})` : ''}.
            {#if estimate}<span class="text-quiet"
                >Ready {spanText(estimate.from, estimate.to)}{estimate.goal
                  ? `: ${GOAL_TEXTS[estimate.goal]}`
                  : ''}.</span
              >{/if}
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  {#if needPiece.length > 0}
    <section aria-labelledby="need">
      <h2 id="need">Needs a new piece</h2>
      <ul>
        {#each needPiece as { id, name, level } (id)}
          <li>
            <a class="hover:text-accent" href="/learners/{id}#suits">{name}, level {levelText(level)}</a>
          </li>
        {/each}
      </ul>
    </section>
  {/if}
  {#if unsigned.length > 0}
    <section aria-labelledby="unsigned">
      <h2 id="unsigned">Drafts</h2>
      <ul>
        {#each unsigned as { id, title, level, names } (id)}
          <li>
            <a class="hover:text-accent" href="/versions/{id}"
              >{title}, level {levelText(level)}{names ? `, for ${names}` : ''}</a
            >
          </li>
        {/each}
      </ul>
    </section>
  {/if}
</div>
