<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import Stamp from '../../parts/Stamp.svelte';
    import { moment } from '../../state/moments';
    import { toasts } from '../../state/toasts.svelte';
    import Area from '../../parts/fields/Area.svelte';
    import { say } from '../../state/words';

    /* What arrived at a hook and what came of it; what could not be taken is mended and taken here. */
    let { hook }: { hook: number } = $props();
    const client = useQueryClient();
    const arrivals = createQuery(() => ({
        queryKey: ['hook-arrivals', hook],
        queryFn: () => ask(api.GET('/api/hooks/{id}/arrivals', { params: { path: { id: hook } } })),
        refetchInterval: 10_000,
    }));
    const SAID: Record<Resources['HookArrivalResource']['outcome'], string> = {
        created: say('created'),
        changed: say('changed'),
        unchanged: say('unchanged'),
        refused: say('not accepted'),
    };
    const TONES: Record<string, 'fern' | 'ink' | 'madder'> = { created: 'fern', changed: 'fern', unchanged: 'ink', refused: 'madder' };
    let opened = $state(0);
    let text = $state('');

    function open(one: Resources['HookArrivalResource']) {
        opened = opened === one.id ? 0 : one.id;
        text = one.text;
    }

    async function again(one: Resources['HookArrivalResource']) {
        try {
            const body = text === one.text ? {} : { text };
            const now = await ask(api.POST('/api/hook-arrivals/{id}/again', { params: { path: { id: one.id } }, body }));
            if (now.trouble) toasts.complain(now.trouble);
            else {
                toasts.tell('It is accepted.');
                opened = 0;
            }
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        for (const key of ['hook-arrivals', 'hooks']) void client.invalidateQueries({ queryKey: [key] });
    }
</script>

<h2 class="mt-7 text-[16px]">What arrived</h2>
{#each arrivals.data ?? [] as one (one.id)}
    <div class="border-b border-ruled py-1.5">
        <button type="button" class="grid w-full grid-cols-[96px_1fr_auto] gap-3 text-left" onclick={() => open(one)}>
            <span class="figures mini">{moment(one.at)}</span>
            <span class="min-w-0 truncate">{one.trouble || one.recordTitle || one.recordNumber}</span>
            <Stamp tone={TONES[one.outcome] ?? 'ink'}>{SAID[one.outcome]}</Stamp>
        </button>
        {#if opened === one.id}
            <div class="mt-2 grid gap-2 rounded-md bg-lit p-3">
                <p class="mini">
                    {one.key}{one.times > 1 ? `, posted ${one.times} times` : ''}
                    {#if one.record !== null}· <a class="link" href="/records/{one.recordType}/{one.record}">{one.recordNumber}</a>{/if}
                </p>
                <Area
                    class="figures h-32 text-[12px]"
                    aria-label="What arrived"
                    readonly={one.outcome !== 'refused' || !one.isWhole}
                    bind:value={text}
                />
                {#if one.outcome === 'refused'}<button type="button" class="btn go justify-self-start" onclick={() => void again(one)}
                        >{text === one.text ? 'Accept it again' : 'Accept the corrected one'}</button
                    >{/if}
            </div>
        {/if}
    </div>
{:else}
    {#if arrivals.data}<p class="mt-1 text-ink-2">Nothing has arrived yet.</p>{/if}
{/each}
