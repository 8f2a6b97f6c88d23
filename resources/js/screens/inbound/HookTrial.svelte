<script lang="ts">
    import { api, ask, said, type Resources } from '../../api/client';
    import Area from '../../parts/fields/Area.svelte';

    /* Something is tried as if it had arrived: what would come of it is said, and nothing is done. */
    let { hook, members }: { hook: number; members: string[] } = $props();
    // svelte-ignore state_referenced_locally
    let text = $state(JSON.stringify(example(members), null, 2));
    let read = $state.raw<Resources['HookReadResource'] | null>(null);
    let wrong = $state('');

    /** An object that has each member, to be typed over. */
    function example(paths: string[]): Record<string, unknown> {
        const all: Record<string, unknown> = {};
        for (const path of paths.filter(Boolean)) {
            const steps = path.split('.');
            let here = all;
            for (const step of steps.slice(0, -1)) here = (here[step] ??= {}) as Record<string, unknown>;
            here[steps.at(-1) ?? path] = '';
        }
        return all;
    }

    async function look() {
        [read, wrong] = [null, ''];
        try {
            read = await ask(api.POST('/api/hooks/{id}/try', { params: { path: { id: hook } }, body: { text } }));
        } catch (thrown) {
            wrong = said(thrown);
        }
    }
</script>

<h2 class="mt-7 text-[16px]">Try it</h2>
<Area class="figures mt-1.5 h-24 text-[12px]" aria-label="What would arrive" bind:value={text} />
<button type="button" class="btn mt-2" onclick={() => void look()}>What would come of it?</button>
{#if wrong}<p class="callout bad mt-2" role="alert">{wrong}</p>{/if}
{#if read}
    <div class="callout mt-2" role="status">
        <p>{read.record === null ? 'It would make a new one:' : `It would change ${read.recordNumber}:`}</p>
        {#each Object.entries(read.values) as [field, value] (field)}<p><b class="font-medium">{field}</b> {value}</p>
        {:else}<p>all of it is so already.</p>{/each}
    </div>
{/if}
