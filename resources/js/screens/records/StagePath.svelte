<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, type Resources } from '../../api/client';
    import Floating from '../../parts/Floating.svelte';
    import { lasted } from '../../state/moments';
    import { changeValue } from './changeValue';
    import { say } from '../../state/words';

    /* The way of a record through its stages: how long it was at each in ink, and in pencil where it can go and what is asked first. */
    type Props = { type: Resources['TypeResource']; record: Resources['RecordResource']; mayMove: boolean };
    let { type, record, mayMove }: Props = $props();
    const SHOWN = 6;
    const client = useQueryClient();
    const stages = createQuery(() => ({
        queryKey: ['account', type.name, record.id, 'stages', record.version],
        queryFn: () => ask(api.GET('/api/records/{type}/{id}/stages', { params: { path: { type: type.name, id: record.id } } })),
    }));
    const ahead = createQuery(() => ({
        queryKey: ['account', type.name, record.id, 'stages-ahead', record.version],
        enabled: mayMove,
        queryFn: () => ask(api.GET('/api/records/{type}/{id}/stages/ahead', { params: { path: { type: type.name, id: record.id } } })),
    }));
    const field = $derived(type.fields.find((one) => one.name === type.stage));
    const order = $derived((field?.choices ?? []).map((choice) => choice.value));
    const at = $derived(order.indexOf(String(record.values[type.stage ?? ''] ?? '')));
    /** Those that come after it in order; a record that is at its last can only go back. */
    const coming = $derived.by(() => {
        const all = ahead.data ?? [];
        const later = all.filter((stage) => order.indexOf(stage.value) > at);
        return (later.length ? later : all).slice(0, 3);
    });
    const way = $derived((stages.data ?? []).slice(-Math.max(2, SHOWN - coming.length)));
    /** What follows at once, by the order of the stages; what comes later can be moved to as well. */
    const isNext = (stage: Resources['StageAheadResource']) => order.indexOf(stage.value) === at + 1;
    const isBack = (stage: Resources['StageAheadResource']) => order.indexOf(stage.value) < at;
    let opened = $state.raw<{ stage: Resources['StageAheadResource']; anchor: HTMLElement } | null>(null);
    let busy = $state(false);

    async function move(stage: Resources['StageAheadResource']) {
        if (!field) return;
        busy = true;
        await changeValue(client, record, field, stage.value);
        [busy, opened] = [false, null];
    }
</script>

{#if way.length}
    <div
        class="grid gap-0 border-b border-ruled px-7 pb-2.5"
        style:grid-template-columns="repeat({way.length + coming.length}, minmax(0, 1fr))"
        aria-label="Time at each stage, and what comes next"
        role="group"
    >
        {#each way as spell, index (index)}
            <div class="border-t-[3px] pt-1.5 pr-2 {spell.current ? 'border-iris' : 'border-ink'}">
                <div class="truncate text-[12px] font-medium {spell.current ? 'text-iris' : 'text-ink-2'}" title={spell.label}>
                    {spell.label}
                </div>
                <div class="figures text-[11px] {spell.current ? 'text-iris' : 'text-ink-2'}">
                    {lasted(spell.seconds)}{spell.current ? ' so far' : ''}
                </div>
            </div>
        {/each}
        {#each coming as stage (stage.value)}
            <button
                type="button"
                class="border-t-[3px] border-dashed border-edge pt-1.5 pr-2 text-left hover:border-iris"
                onclick={(event) => (opened = { stage, anchor: event.currentTarget })}
            >
                <span class="block truncate text-[12px] font-medium text-ink-3" title={stage.label}>{stage.label}</span>
                <span class="block text-[11px] {stage.asks ? 'text-marigold' : 'text-ink-3'}">
                    {stage.asks ? 'asks first' : isBack(stage) ? say('back') : isNext(stage) ? say('next') : say('later')}
                </span>
            </button>
        {/each}
    </div>
{:else if stages.isPending}
    <div class="h-[55px] border-b border-ruled" aria-hidden="true"></div>
{/if}

{#if opened}
    {@const stage = opened.stage}
    <Floating anchor={opened.anchor} label="To {stage.label}" onclose={() => (opened = null)}>
        <div class="max-w-[320px] p-4 text-[13px]">
            <h3 class="mb-1 font-semibold">{isBack(stage) ? 'Back' : 'On'} to {stage.label}</h3>
            {#if stage.asks}<p class="callout warn mb-2">{stage.asks}</p>{/if}
            {#if stage.fires.length}
                <p class="text-ink-2">Then {stage.fires.length === 1 ? 'this rule fires' : 'these rules fire'}:</p>
                <ul class="mt-1 mb-2">
                    {#each stage.fires as name (name)}<li class="font-medium">{name}</li>{/each}
                </ul>
            {:else if !stage.asks}<p class="mb-2 text-ink-2">No rule fires then.</p>{/if}
            <button type="button" class="btn {stage.asks ? '' : 'go'}" disabled={busy} onclick={() => move(stage)}
                >{stage.asks ? 'Try it all the same' : `Move to ${stage.label}`}</button
            >
        </div>
    </Floating>
{/if}
