<script lang="ts">
  /** Pieces that somebody asked for: by whom and when, what is known, and what comes next for each. */
  import { levelText } from '$core/arrange/levels';
  import { enhance } from '$app/forms';
  import Once from '$ui/form/Once.svelte';
  import { shortDate } from '$ui/text';

  let { data, form } = $props();
  const values = $derived<Record<string, string> | undefined>(
    form && 'values' in form ? form.values : undefined,
  );
  /** Only what begins like an address is one. */
  const isLink = (place: string): boolean => /^https?:\/\//.test(place);
</script>

<svelte:head><title>Requests · Key Path</title></svelte:head>

<main id="main" class="mx-auto grid max-w-6xl gap-x-12 px-4 py-7 sm:px-7 lg:grid-cols-[minmax(0,1fr)_20rem]">
  <div class="min-w-0">
    <p><a class="text-quiet hover:text-ink" href="/pieces">Pieces</a></p>
    <h1>Requests</h1>
    <p class="mt-1 text-quiet">Pieces somebody asked for, until they have a goal date or are put aside.</p>
    {#if form && 'said' in form}<p class="mt-3" role="status">{form.said}</p>{/if}
    {#if form && 'message' in form}<p class="mt-3 text-alarm" role="alert">{form.message}</p>{/if}
    {#if data.requests.length === 0}<p class="mt-5">No requests yet.</p>{/if}
    <ul class="mt-4">
      {#each data.requests as request (request.id)}
        <li class="border-t border-hairline py-3">
          <div class="flex flex-wrap items-baseline gap-x-4">
            <h2 class="text-lg">{request.title}</h2>
            <span class="text-quiet"
              >{request.by ? `${request.by}, ` : ''}<span class="tabular-nums">{shortDate(request.day)}</span
              ></span
            >
            <form method="post" action="?/close" use:enhance class="ml-auto">
              <input type="hidden" name="id" value={request.id} />
              <button class="link text-sm" aria-label="Put aside {request.title}">Put aside</button>
            </form>
          </div>
          {#if request.place}
            <p class="text-sm break-all">
              {#if isLink(request.place)}<a
                  class="link"
                  href={request.place}
                  rel="noreferrer noopener"
                  target="_blank">{request.place}</a
                >{:else}{request.place}{/if}
            </p>
          {/if}
          {#if request.known}<p class="text-sm whitespace-pre-line">{request.known}</p>{/if}
          <p class="mt-1 flex flex-wrap items-center gap-x-4 gap-y-1">
            {#if request.stage === 'asked'}
              <span
                >Next: <a class="link" href="/pieces">add its file</a> or
                <a class="link" href="/pieces/new">write it</a></span
              >
            {:else if request.stage === 'piece'}
              <span>Next: <a class="link" href="/pieces/{request.piece!.id}">make a version</a></span>
            {:else if request.stage === 'version'}
              <span
                >Next: <a class="link" href="/versions/{request.version!.id}?assign"
                  >assign the version at level {levelText(request.version!.level)}</a
                ></span
              >
            {:else if request.stage === 'assigned'}
              <span
                >Next: <a class="link" href="/assignments/{request.assignment!.id}">set a goal date</a></span
              >
            {:else}
              <span
                >Goal date: <a class="link" href="/assignments/{request.assignment!.id}"
                  >{shortDate(request.assignment!.goalDate!)}</a
                ></span
              >
            {/if}
          </p>
          <form
            method="post"
            action="?/piece"
            use:enhance
            class="mt-1 flex flex-wrap items-center gap-2 text-sm"
          >
            <input type="hidden" name="id" value={request.id} />
            <label class="flex items-center gap-2"
              >It is <select
                class="field"
                name="piece"
                value={request.piece?.id ?? ''}
                onchange={(event) => event.currentTarget.form?.requestSubmit()}
              >
                <option value="">no piece yet</option>
                {#each data.pieces as { id, title } (id)}<option value={id}>{title}</option>{/each}
              </select></label
            >
            <noscript><button class="link">Save</button></noscript>
          </form>
          {#if request.suits.length > 0}
            <p class="mt-1 text-sm text-quiet">
              Suits next:
              {#each request.suits as student, i (student.id)}{i > 0 ? ', ' : ''}<a
                  class="link"
                  href="/learners/{student.id}">{student.name}</a
                >
                (level {levelText(student.level)}){/each}
            </p>
          {/if}
        </li>
      {/each}
    </ul>
  </div>

  <section class="mt-7 lg:mt-12" aria-labelledby="new">
    <h2 id="new">New request</h2>
    <form method="post" action="?/add" use:enhance class="mt-2 grid gap-3">
      <Once />
      <label class="grid"
        >Piece <input
          class="field"
          name="title"
          required
          maxlength="120"
          value={values?.title ?? ''}
        /></label
      >
      <label class="grid"
        >Asked by <select class="field" name="learner" value={values?.learner ?? ''}>
          <option value="">somebody else</option>
          {#each data.learners as { id, name } (id)}<option value={id}>{name}</option>{/each}
        </select></label
      >
      <label class="grid"
        >Name, if somebody else <input
          class="field"
          name="askedBy"
          maxlength="80"
          value={values?.askedBy ?? ''}
        /></label
      >
      <label class="grid"
        >Link, or where a recording is <input
          class="field"
          name="place"
          maxlength="300"
          value={values?.place ?? ''}
        /></label
      >
      <label class="grid"
        >Notes
        <textarea class="field" name="known" rows="3" maxlength="2000">{values?.known ?? ''}</textarea></label
      >
      <p><button class="action">Add to the list</button></p>
    </form>
  </section>
</main>
