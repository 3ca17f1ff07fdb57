<script lang="ts">
  /** A practice room that needs no server: its steps, and the results for the teacher. */
  import type { HomeContents } from '$core/lessons/home';
  import type { RoomPiece } from '$core/lessons/room';
  import Room from '$ui/room/Room.svelte';
  import { RoomState } from '$ui/room/room.svelte';
  import { isSmall, roomIn } from '$ui/shown/shown';
  import { onMount, untrack } from 'svelte';
  import { HomeRecord } from './record.svelte';
  import Results from './Results.svelte';

  let { contents }: { contents: HomeContents } = $props();
  let innerWidth = $state(0);
  const simulated = new URLSearchParams(location.search).get('keyboard') === 'simulated';
  const isNarrow = $derived(isSmall({ room: roomIn(innerWidth) }));
  const pieces = $derived(
    Object.fromEntries(
      Object.entries(contents.pieces).map(([id, { music, wide, narrow }]): [string, RoomPiece] => [
        id,
        { music, pictures: isNarrow ? narrow : wide },
      ]),
    ),
  );
  const record = untrack(() => new HomeRecord(contents.id));
  const room = untrack(
    () => new RoomState({ record, tasks: contents.tasks, pieces: () => pieces, simulated }),
  );
  onMount(() => () => room.close());
</script>

<svelte:window bind:innerWidth />
<svelte:head><title>{contents.name}, practice · Key Path</title></svelte:head>

<Room name={contents.name} tasks={contents.tasks} {room} practised={record.minutesToday} {simulated}>
  <Results {record} name={contents.name} before={() => room.clock.tellNow()} />
</Room>
