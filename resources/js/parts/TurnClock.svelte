<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said } from '../api/client';
    import Floating from './Floating.svelte';
    import { ahead, fromLocalField, longMoment, moment, toLocalField } from '../state/moments';
    import { clock } from '../state/session.svelte';
    import { toasts } from '../state/toasts.svelte';
    import DateField from './fields/DateField.svelte';

    /* The house clock, and in the demo the key to turn it with. */
    const client = useQueryClient();
    let anchor = $state<HTMLElement>();
    let open = $state(false);
    let to = $state('');
    const house = createQuery(() => ({
        queryKey: ['clock'],
        queryFn: () => ask(api.GET('/api/clock')),
        refetchInterval: (query) => (query.state.data?.turn?.turning ? 400 : open ? 5000 : 60_000),
    }));
    const turn = $derived(house.data?.turn ?? null);
    const turning = $derived(turn?.turning ?? false);
    let wasTurning = $state(false);
    $effect(() => {
        if (!house.data) return;
        clock.set(house.data.now, house.data.timeZone);
        // What the turn brought about stands on every screen.
        if (wasTurning && !turning) void client.invalidateQueries();
        wasTurning = turning;
    });
    const share = $derived(
        turn ? (Date.parse(turn.reached) - Date.parse(turn.from)) / Math.max(1, Date.parse(turn.to) - Date.parse(turn.from)) : 0,
    );

    async function begin(body: { by?: 'hour' | 'day' | 'week' | 'next'; to?: string }) {
        try {
            client.setQueryData(['clock'], await ask(api.POST('/api/clock/turn', { body })));
            await house.refetch();
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    function turnTo(event: SubmitEvent) {
        event.preventDefault();
        if (to) void begin({ to: fromLocalField(to) });
    }
</script>

<div class="clock" bind:this={anchor} title="The house clock, in {clock.zone}">
    {longMoment(clock.now)}
    {#if house.data?.mayTurn}
        <button
            type="button"
            class="turn"
            aria-expanded={open}
            onclick={() => {
                open = !open;
                to = toLocalField(clock.now.toISOString());
            }}>{turning ? 'Turning…' : 'Turn forward'}</button
        >
    {/if}
</div>

{#if open && anchor}
    <Floating {anchor} label="Turn the house clock forward" onclose={() => (open = false)}>
        <div class="w-[400px]">
            <div class="flex flex-wrap gap-2 px-4 pt-3.5 pb-2">
                {#each [['hour', 'An hour'], ['day', 'A day'], ['week', 'A week']] as [by, label] (by)}
                    <button type="button" class="btn" disabled={turning} onclick={() => begin({ by: by as 'hour' })}>{label}</button>
                {/each}
                <button
                    type="button"
                    class="btn"
                    disabled={turning || !house.data?.nextDue}
                    title={house.data?.nextDue ? moment(house.data.nextDue) : 'Nothing is pencilled in'}
                    onclick={() => begin({ by: 'next' })}
                    >To the next line{house.data?.nextDue ? `, ${ahead(house.data.nextDue)}` : ''}</button
                >
            </div>
            <form class="flex items-center gap-2 px-4 pb-3" onsubmit={turnTo}>
                <DateField time label="To" bind:value={to} />
                <button class="btn" disabled={turning}>Turn to</button>
            </form>
            {#if turn}
                <div class="border-t border-ruled px-4 py-3" aria-live="polite">
                    <div class="h-1.5 overflow-hidden rounded bg-ruled">
                        <div class="h-full bg-iris transition-[width]" style:width="{turning ? Math.max(2, share * 100) : 100}%"></div>
                    </div>
                    <p class="mini mt-1.5">
                        {turning ? 'Now at' : 'Turned from'}
                        <span class="figures">{moment(turning ? turn.reached : turn.from)}</span>
                        {#if !turning}→ <span class="figures">{moment(turn.to)}</span>{/if} · {turn.done} into ink
                    </p>
                    <div class="mt-1.5 max-h-[260px] overflow-y-auto">
                        {#each turn.entries as entry (entry.number)}
                            {@const head = entry.headInLedger}
                            <a
                                class="grid grid-cols-[86px_1fr] gap-2 border-b border-ruled py-1 text-[12px] hover:text-iris"
                                href="/ledger/{entry.number}"
                                ><span class="figures mini">{moment(entry.at)}</span><span
                                    ><b class="font-semibold">{head.strong}</b> {head.rest}</span
                                ></a
                            >
                        {:else}{#if !turning}<p class="mini">Nothing fell due in between.</p>{/if}{/each}
                    </div>
                </div>
            {/if}
            <div class="keys">Everything in between really happens. Back goes only bin/start --fresh.</div>
        </div>
    </Floating>
{/if}
