<script lang="ts">
    import type { Resources } from '../../api/client';
    import { lasted } from '../../state/moments';
    import { clock } from '../../state/session.svelte';
    import { counted } from '../../state/words';

    /* What waits for a yes or a no: for oneself, and for whom longest. */
    let { load }: { load: Resources['SignOffLoad'] } = $props();
    const age = (since: string) => lasted((clock.now.getTime() - Date.parse(since)) / 1000);
</script>

<h2 class="mb-1">Sign-offs</h2>
<p class="mb-1 text-[13px] text-ink-2">
    {#if load.mine}<a class="link" href="/sign-offs">{counted(load.mine, ['# sign-off waits for you', '# sign-offs wait for you'])}</a>
    {:else}Nothing waits for you.{/if}
    {#if load.people.length}{load.waiting} in all{load.medianSeconds === null
            ? ''
            : `; half are decided within ${lasted(load.medianSeconds)}`}.{/if}
</p>
{#each load.people as person (person.name)}
    <div class="grid grid-cols-[1fr_auto_64px] gap-3 border-b border-ruled py-1.5 text-[12.5px]">
        <span class="truncate font-medium">{person.name}</span>
        <span class="figures text-ink-2">{person.count}</span>
        <span class="figures text-right {Date.parse(person.since) < clock.now.getTime() - 3 * 86_400_000 ? 'text-madder' : 'text-ink-3'}"
            >{age(person.since)}</span
        >
    </div>
{/each}
